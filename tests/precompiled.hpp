// What most tests include, read once for all of them.
#pragma once

#include <algorithm>
#include <array>
#include <catch2/catch.hpp>
#include <cmath>
#include <filesystem>
#include <functional>
#include <limits>
#include <map>
#include <memory>
#include <optional>
#include <set>
#include <string>
#include <vector>

#include "test_stage.hpp"
#include "vole/app/session.hpp"
#include "vole/app/simulation.hpp"
#include "vole/draw/raster.hpp"
#include "vole/scene/cues.hpp"
