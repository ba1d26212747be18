// Propellers: others on all motors, side by side.
#pragma once

#include "app/stages/balance/options_page.h"
#include "core/studies/propellers.h"

namespace waxis::balance {

class PropellersPage : public OptionsPage<PropellerOption> {
    Q_OBJECT

public:
    PropellersPage(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

protected:
    bool hasSomething() const override;
    QString whatIsCompared() const override;
    QString whileTrying() const override;
    QString none() const override;
    QString foot() const override;
    std::vector<OptionCell> cells(const PropellerOption &option) const override;
    app::Background<Options>::Work compare(const Build &build, std::size_t loadCase) const override;
    void fitOne(const PartType &type) override;
};

} // namespace waxis::balance
