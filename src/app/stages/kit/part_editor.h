// Makes or changes a part type: a live drawing, its numbers, and what is wrong with them as they are typed.
#pragma once

#include "app/document/document.h"
#include "app/stages/kit/part_canvas.h"
#include "app/stages/kit/record_table.h"
#include "core/catalog/part_check.h"
#include "io/solids/solid_reader.h"

#include <functional>
#include <memory>

class QFormLayout;
class QLabel;
class QLineEdit;
class QPushButton;
class QVBoxLayout;

namespace waxis::kit {

class PartEditor : public QWidget {
    Q_OBJECT

public:
    PartEditor(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

    /// A copy to work on. `replaces`: the build's type that Keep will change; empty: Keep adds a new one.
    void open(const PartType &type, const std::string &replaces);
    const PartType &type() const { return type_; }
    const std::vector<PartFault> &faults() const { return faults_; }
    /// Adds bodies of a STEP or STL file once they are read, in the background; what is wrong with the file is shown.
    void readBodies(const QString &path);
    bool keep(bool inOwnLibrary);

signals:
    void finished(bool kept);
    void said(const QString &text, bool bad);

private:
    void takeBodies(const Result<ImportedSolids, LoadError> &solids);
    void makeForm();
    // Sections of the form, each under a heading of its own but for leads and the first band.
    void makeIdentityForm();
    void makeBodiesForm();
    void makeMountingForm();
    void makePortsForm();
    void makePlugsTable();
    void makeLeadsForm();
    void makeElectricForm();
    void makeBandsForm();
    void makeFirstBandForm();
    void makeAntennaForm();
    void makeCameraForm();
    void makeMagnetismForm();
    /// Changes what is known of its magnetism; nothing known: none.
    void setMagnetics(const std::function<void(Magnetics &)> &change);
    void makeHardwareForm();
    void makeJointsForm();
    /// Says what was typed into a table and could not be read.
    std::function<void(const QString &)> unreadable();
    void heading(const QString &text);
    QLineEdit *line(const QString &label, const QString &name, std::function<QString()> get,
                    std::function<bool(const QString &)> set, const QString &tip = {});
    QLineEdit *number(const QString &label, const QString &name, std::function<std::optional<double> *()> field);
    void choice(const QString &label, const QString &name, const QStringList &words, std::function<int()> get,
                std::function<void(int)> set);
    void flag(const QString &label, const QString &name, std::function<bool *()> field);
    void measured(const QString &label, const QString &name, std::function<Measured *()> field);
    void pattern(const QString &label, const QString &name, std::optional<HolePattern> PartType::*field);
    void tableWithButtons(QWidget *records, const QString &addText, std::function<void()> addOne,
                          std::function<void()> removeOne);
    template <class T>
    void table(RecordTable<T> &records, const QString &addText, const T &fresh) {
        tableWithButtons(
            records.widget(), addText, [&records, fresh] { records.add(fresh); },
            [&records] { records.removeCurrent(); });
        fillers_.push_back([&records] { records.fill(); });
    }
    void changed(const QString &problem = {});
    void refill();
    Electrical &electrical();

    app::Document &document_;
    const theme::Theme &theme_;
    PartType type_;
    std::string replaces_;
    bool idFollowsName_ = false;
    std::vector<PartFault> faults_;
    QString problem_; ///< what was typed last and could not be read
    PartCanvas *canvas_ = nullptr;
    QVBoxLayout *column_ = nullptr;
    QFormLayout *form_ = nullptr;
    QLabel *title_ = nullptr, *faultText_ = nullptr;
    QPushButton *keep_ = nullptr, *keepOwn_ = nullptr;
    std::vector<std::function<void()>> fillers_;
    std::unique_ptr<RecordTable<Solid>> bodies_;
    std::unique_ptr<RecordTable<Port>> ports_, plugs_;
    std::unique_ptr<RecordTable<PowerOutput>> outputs_;
    std::unique_ptr<RecordTable<RadioBand>> bands_;
    std::unique_ptr<RecordTable<SuppliedLead>> leads_;
    std::unique_ptr<RecordTable<Travel>> joints_;
    bool filling_ = false;
};

} // namespace waxis::kit
