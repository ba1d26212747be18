// Inside report_json: what is not known is null.
#pragma once

#include "io/json/write_model.h"

#include <nlohmann/json.hpp>
#include <optional>
#include <string>

namespace waxis::io {

template <class T>
OrderedJson orNull(const std::optional<T> &value) {
    return value ? OrderedJson(*value) : OrderedJson(nullptr);
}

/// A list of rows.
inline OrderedJson matrixJson(const Eigen::MatrixXd &m) {
    auto rows = OrderedJson::array();
    for (Eigen::Index i = 0; i < m.rows(); ++i) {
        auto row = OrderedJson::array();
        for (Eigen::Index k = 0; k < m.cols(); ++k) row.push_back(m(i, k));
        rows.push_back(row);
    }
    return rows;
}

inline OrderedJson textOrNull(const std::string &text) {
    return text.empty() ? OrderedJson(nullptr) : OrderedJson(text);
}

} // namespace waxis::io
