// Everything a game usually needs. A program with a window includes vole/window.hpp instead.
#pragma once

#include "vole/app/game.hpp"
#include "vole/app/run.hpp"
#include "vole/base/trig.hpp"
#include "vole/input/intent.hpp"
#include "vole/scene/cues.hpp"
#include "vole/scene/drawing.hpp"
#include "vole/scene/scene.hpp"
#include "vole/version.hpp"
#include "vole/world/body.hpp"
#include "vole/world/lamp.hpp"
#include "vole/world/motion.hpp"
#include "vole/world/path_mover.hpp"
#include "vole/world/side_mover.hpp"
#include "vole/world/top_mover.hpp"
