#include "vole/base/number.hpp"

#include <cmath>
#include <locale>
#include <sstream>
#include <string>

namespace vole {

// By a stream, since not every standard library here has std::from_chars for floats.
std::optional<float> parse_float(std::string_view text) {
  if (text.empty() || text[0] == '+' || text.find_first_not_of("0123456789+-.eE") != std::string_view::npos)
    return std::nullopt;
  std::istringstream stream{std::string(text)};
  stream.imbue(std::locale::classic());
  float value = 0;
  stream >> value;
  if (stream.fail() || !stream.eof() || !std::isfinite(value)) return std::nullopt;
  return value;
}

}  // namespace vole
