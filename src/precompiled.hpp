// What nearly every source of the library includes, read once for all of them: the standard library's, and what is described of
// structs. Headers that change often stay out, since a change of one here compiles everything anew.
#pragma once

#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdint>
#include <cstring>
#include <functional>
#include <limits>
#include <map>
#include <memory>
#include <optional>
#include <set>
#include <span>
#include <stdexcept>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "vole/base/described_type.hpp"
#include "vole/base/names.hpp"
#include "vole/base/reading.hpp"
