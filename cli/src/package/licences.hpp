// What a package owes to others: which shared libraries it must carry, and the licences of everything in it.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "archive.hpp"

struct SharedLibrary {
  std::string name;  // as the program asks for it: libfmt.so.9
  std::string path;  // where it was found
};

// The libraries a program needs beyond those that every desktop has (C and C++ runtime, window system, GL,
// sound server). Throws vole::Error when one of them is missing.
std::vector<SharedLibrary> libraries_to_carry(const std::string& program);

// What is compiled into a program, and the Debian package that has its licence.
struct CompiledIn {
  std::string_view name;
  std::string_view package;
};

// A file for each licence: of the libraries carried, of what is compiled into every game and into this one, and of Vole
// itself. Throws vole::Error when one cannot be found.
std::vector<PackedFile> licence_files(const std::vector<SharedLibrary>& libraries,
                                      const std::vector<CompiledIn>& more = {});
