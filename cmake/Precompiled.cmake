# What nearly every file opens and nobody here changes: parsed once instead of some three hundred times.
set(WEIGHTAXIS_COMMON_HEADERS
    <Eigen/Core> <Eigen/Geometry> <algorithm> <array> <cmath> <fmt/format.h> <functional> <map> <memory> <optional>
    <set> <string> <string_view> <unordered_map> <variant> <vector>)
set(WEIGHTAXIS_WIDGET_HEADERS
    <QAction> <QApplication> <QComboBox> <QFormLayout> <QHBoxLayout> <QHeaderView> <QKeyEvent> <QLabel> <QLineEdit>
    <QMenu> <QMouseEvent> <QPainter> <QPainterPath> <QPushButton> <QScrollArea> <QStringList> <QTableWidget> <QTimer>
    <QToolButton> <QVBoxLayout> <QWidget>)
