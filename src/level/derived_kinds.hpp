// Kinds that are made from others.
#pragma once

#include "vole/base/describe.hpp"

namespace vole {

// Puts what each kind says over what it is made from, and takes out `from` and `without`. What is wrong goes to the report.
void derive_kinds(Named<TomlValue>& kinds, Report& report);

}  // namespace vole
