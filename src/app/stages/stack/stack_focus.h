// Which stack, which layer and which gap the bench looks at: shared by its drawing and its cards.
#pragma once

#include "app/document/document.h"

namespace waxis {
struct StackReport;
}

namespace waxis::stackbench {

class StackFocus : public QObject {
    Q_OBJECT

public:
    explicit StackFocus(app::Document &document, QObject *parent = nullptr);

    app::Document &document() { return document_; }
    const app::Document &document() const { return document_; }
    /// The chosen stack, else the first; null when the build has none.
    const Stack *stack() const;
    const StackReport *report() const;
    int layer() const { return layer_; } ///< -1: none
    /// The gap that is looked at: the chosen one, else the one with the least air; -1 without gaps.
    int gap() const;

    void chooseStack(const std::string &id);
    void chooseLayer(int layer);
    void chooseGap(int gap);
    /// The stack and layer of a part, or the stack of that id; false when it is in none.
    bool reveal(const std::string &id);

    /// One undoable edit of the chosen stack; the layer looked at becomes `layer`.
    bool edit(const QString &name, const EditResult &result, int layer);
    bool edit(const QString &name, const EditResult &result) { return edit(name, result, layer_); }

    /// Asleep it tells nobody of changes; awake again it tells once. A bench that nobody sees costs nothing.
    void setAwake(bool awake);

    /// In a few words: "Four-in-one ESC", "dampers 3.0 → 2.6", "2 mm of wires".
    QString layerWords(int layer) const;

signals:
    void changed();

private:
    void tell();
    app::Document &document_;
    bool awake_ = false, missed_ = true;
    std::string stackId_;
    int layer_ = -1, gap_ = -1;
};

QString number(double value, int decimals = 1);

} // namespace waxis::stackbench
