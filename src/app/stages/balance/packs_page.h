// Packs: others in the place of the one that is fitted, side by side.
#pragma once

#include "app/stages/balance/options_page.h"
#include "core/studies/packs.h"

namespace waxis::balance {

class PacksPage : public OptionsPage<PackOption> {
    Q_OBJECT

public:
    PacksPage(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

protected:
    bool hasSomething() const override { return !pack().empty(); }
    QString whatIsCompared() const override;
    QString whileTrying() const override;
    QString none() const override;
    QString foot() const override;
    std::vector<OptionCell> cells(const PackOption &option) const override;
    app::Background<Options>::Work compare(const Build &build, std::size_t loadCase) const override;
    void fitOne(const PartType &type) override;

private:
    std::string pack() const;
};

} // namespace waxis::balance
