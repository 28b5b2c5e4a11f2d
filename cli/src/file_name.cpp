#include "file_name.hpp"

#include <algorithm>

bool is_file_name(std::string_view name) {
  const auto fits = [](char c) {
    return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '-' ||
           c == '_' || c == '.';
  };
  return !name.empty() && name.size() <= 100 && name.front() != '.' &&
         std::all_of(name.begin(), name.end(), fits);
}
