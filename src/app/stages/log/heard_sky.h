// The sky over a place: what the model says the craft hides, and over it what was heard.
#pragma once

#include "app/theme/theme.h"
#include "core/studies/sky_proof.h"

#include <QImage>
#include <QWidget>

namespace waxis::logbench {

class HeardSky : public QWidget {
    Q_OBJECT

public:
    explicit HeardSky(const theme::Theme &theme, QWidget *parent = nullptr);
    /// The sky is drawn with the nose up.
    void show(const SkyView &view, const SkyProof &proof);
    void clear();

protected:
    void paintEvent(QPaintEvent *event) override;

private:
    const theme::Theme &theme_;
    SkyView view_;
    SkyProof proof_;
    QImage hidden_; ///< shade of what is hidden, in the circle
};

} // namespace waxis::logbench
