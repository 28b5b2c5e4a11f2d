// Four numbers: what a field's value is reckoned with as (field.hpp). For those that need more of it than its name.
#pragma once

#include <glm/ext/vector_float4.hpp>

#include "vole/base/vec.hpp"
