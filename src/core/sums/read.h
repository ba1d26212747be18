// Inside sums: reading inputs that calculate() has already checked for presence and kind.
#pragma once

#include "core/geometry/pose.h"
#include "core/sums/sum.h"

namespace waxis::sums {

double number(const SumObject &inputs, const std::string &key);
std::vector<double> numbers(const SumValue &value);
std::vector<Vec2> points(const SumObject &inputs, const std::string &key);
/// 00, 000 and 0000 are -1, -2 and -3; none: no gauge from 0000 to 40.
std::optional<int> gaugeFrom(const SumValue &value);
int gauge(const SumObject &inputs, const std::string &key);
SumValue list(std::span<const double> values);
SumValue matrix(const Mat3 &m);

std::vector<Sum> balanceSums();
std::vector<Sum> mendingSums();
std::vector<Sum> attitudeSums();
std::vector<Sum> fastenerSums();
std::vector<Sum> screwSums();
std::vector<Sum> skySums();
std::vector<Sum> wireSums();
std::vector<Sum> powerSums();
std::vector<Sum> antennaSums();
std::vector<Sum> linkSums();
std::vector<Sum> magneticSums();
std::vector<Sum> vibrationSums();
std::vector<Sum> trialSums();

/// The error of the first input that is not more than zero.
std::optional<SumError> needsPositive(const SumObject &in, std::initializer_list<const char *> keys);

} // namespace waxis::sums
