#include "vole/app/project.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "vole/base/files.hpp"
#include "vole/base/reading.hpp"

namespace vole {

Project read_project(const std::string& file) {
  Report report;
  Project project;
  project.root = folder_of(file).empty() ? "." : folder_of(file);
  read(read_toml(file), project, report);
  const auto plain = [](char c) { return (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9') || c == '-'; };
  if (const std::string& id = project.id.value;
      project.id.where.file && (id.empty() || !std::all_of(id.begin(), id.end(), plain)))
    report.error(project.id.where, fmt::format("\"{}\" is not an id", id),
                 "an id has small letters, digits and '-' only");
  report.throw_if_errors();
  return project;
}

std::string find_project(const std::string& file, const std::string& program) {
  std::vector<std::string> candidates{join_path(folder_of(program), file)};
  if (const std::string pointer = program + ".folder"; file_exists(pointer)) {
    std::string folder = read_text(pointer, 65536);
    folder.erase(std::find(folder.begin(), folder.end(), '\n'), folder.end());
    candidates.push_back(join_path(folder, file));
  }
  candidates.push_back(file);
  for (std::string& candidate : candidates)
    if (file_exists(candidate)) return std::move(candidate);
  throw Error(FilePosition::whole_file(file), "no such file here nor beside the program",
              "start it in the game's folder");
}

}  // namespace vole
