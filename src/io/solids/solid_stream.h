// What the program that reads solids tells the one that asked: CBOR (RFC 8949).
#pragma once

#include "io/solids/solid_reader.h"

namespace waxis::io {

std::string encodeSolids(const Result<ImportedSolids, LoadError> &solids);
/// Errors: bytes that are none of it.
Result<ImportedSolids, LoadError> decodeSolids(std::string_view bytes);

} // namespace waxis::io
