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

// The libraries that a program loads at its start: those that go along, and the names of those that every desktop has (C and C++
// runtime, window system, GL, sound server). Throws vole::Error when one of them is missing.
struct ProgramLibraries {
  std::vector<SharedLibrary> carried;
  std::vector<std::string> of_the_system;
};
ProgramLibraries libraries_of(const std::string& program);

// What is compiled into a program, and the Debian package that has its licence.
struct CompiledIn {
  std::string name;
  std::string package;
};
// The package of the C++ runtime that g++ links in.
std::string package_of_cpp_runtime();

// A file for each licence: of the libraries carried, of what is compiled into every game and into this one, and of Vole
// itself. Throws vole::Error when one cannot be found.
std::vector<PackedFile> licence_files(const std::vector<SharedLibrary>& libraries,
                                      const std::vector<CompiledIn>& more = {});
