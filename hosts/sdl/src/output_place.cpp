#include "output_place.hpp"

#if defined(_WIN32)

#define WIN32_LEAN_AND_MEAN
#include <SDL.h>
#include <windows.h>

#include <array>
#include <cstdio>
#include <string>

namespace vole {
namespace {

bool leads_somewhere(DWORD which) {
  const HANDLE handle = GetStdHandle(which);
  return handle != nullptr && handle != INVALID_HANDLE_VALUE && GetFileType(handle) != FILE_TYPE_UNKNOWN;
}

bool lead(FILE* stream, const wchar_t* path, const wchar_t* mode) {
  if (_wfreopen(path, mode, stream)) return true;
#if defined(__MSVCRT__) && !defined(_UCRT)
  // Some runtimes do not reopen what was never open; a stream is a plain struct in them.
  if (FILE* const opened = _wfopen(path, mode)) {
    *stream = *opened;
    std::setvbuf(stream, nullptr, _IONBF, 0);
    return true;
  }
#endif
  return false;
}

// Into a new file of the folder for temporary ones; "D" has it removed when the program ends.
bool keep(FILE* stream) {
  std::array<wchar_t, MAX_PATH + 1> folder{}, file{};
  return GetTempPathW(MAX_PATH, folder.data()) != 0 &&
         GetTempFileNameW(folder.data(), L"vol", 0, file.data()) != 0 && lead(stream, file.data(), L"w+bD");
}

// The last lines, as many as fit in a box.
std::string last_lines(FILE* stream) {
  constexpr long most = 1500;
  std::fseek(stream, 0, SEEK_END);
  const long size = std::ftell(stream), start = size > most ? size - most : 0;
  std::string text(static_cast<std::size_t>(size > 0 ? size - start : 0), '\0');
  std::fseek(stream, start, SEEK_SET);
  text.resize(std::fread(text.data(), 1, text.size(), stream));
  const std::size_t line = start > 0 ? text.find('\n') : std::string::npos;
  return line == std::string::npos ? text : text.substr(line + 1);
}

}  // namespace

OutputPlace::OutputPlace(bool may_ask) {
  const bool out = leads_somewhere(STD_OUTPUT_HANDLE), errors = leads_somewhere(STD_ERROR_HANDLE);
  if (out && errors) return;
  if (AttachConsole(ATTACH_PARENT_PROCESS) != 0) {
    if (!out) lead(stdout, L"CONOUT$", L"w");
    if (!errors) lead(stderr, L"CONOUT$", L"w");
    return;
  }
  if (!errors && may_ask) unseen_ = keep(stderr);
}

int OutputPlace::finish(int code) {
  if (!unseen_ || code == 0) return code;
  const std::string said = last_lines(stderr);
  if (!said.empty()) SDL_ShowSimpleMessageBox(SDL_MESSAGEBOX_ERROR, "The game ended", said.c_str(), nullptr);
  return code;
}

}  // namespace vole

#else

namespace vole {

// Elsewhere a program has an output, or whoever started it wants none.
OutputPlace::OutputPlace(bool) {}
int OutputPlace::finish(int code) {
  return code;
}

}  // namespace vole

#endif
