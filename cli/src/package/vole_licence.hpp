// The text of Vole's own LICENSE file.
#pragma once

#include <string_view>

std::string_view vole_licence();
