# Writes a C++ file that holds other files as bytes:
#   cmake -DFOLDER=... -DNAME=... -DOUTPUT=... -P embed.cmake
file(GLOB_RECURSE files RELATIVE ${FOLDER} ${FOLDER}/*)
list(SORT files)
set(arrays "")
set(table "")
set(number 0)
foreach(file IN LISTS files)
  file(READ ${FOLDER}/${file} hex HEX)
  string(REGEX REPLACE "([0-9a-f][0-9a-f])" "0x\\1," bytes "${hex}")
  string(APPEND arrays "constexpr unsigned char file_${number}[] = {${bytes}0};\n")
  string(APPEND table "    {\"${file}\", file_${number}, sizeof(file_${number}) - 1},\n")
  math(EXPR number "${number} + 1")
endforeach()
file(WRITE ${OUTPUT} "// Made by embed.cmake.
#include \"embedded.hpp\"

namespace {
${arrays}}  // namespace

std::span<const EmbeddedFile> embedded_${NAME}() {
  static constexpr EmbeddedFile files[] = {
${table}  };
  return files;
}
")
