// What most sources of the program include, read once for all of them.
#pragma once

#include <fmt/core.h>

#include <algorithm>
#include <cstdio>
#include <filesystem>
#include <functional>
#include <map>
#include <memory>
#include <optional>
#include <set>
#include <string>
#include <string_view>
#include <vector>

#include "vole/app/project.hpp"
#include "vole/asset/catalog.hpp"
#include "vole/asset/sheet.hpp"
#include "vole/base/names.hpp"
#include "vole/base/reading.hpp"
#include "vole/level/level.hpp"
