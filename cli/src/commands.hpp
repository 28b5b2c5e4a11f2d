// The commands of the program `vole`. Each returns its exit code: 0, or 1 when it found something wrong; what
// it cannot do it throws as vole::Error.
#pragma once

#include <string>
#include <vector>

struct NewOptions {
  std::string folder;
  std::string title;          // empty: made from the folder's name
  std::string view = "side";  // or "top"
};
int new_game(const NewOptions& options, const std::string& program);

struct CheckOptions {
  std::string folder = ".";
  bool json = false;
};
int check(const CheckOptions& options);

struct PreviewOptions {
  std::string file;
  std::string output;
  std::string clip;          // or set; empty: all
  std::string kind;          // of kinds.toml: only this one; of a level: who gets where
  std::string show = "all";  // or "baseline", "edges", "jump", "light", "mind", "reach", "rules", "shapes"
  bool watch = false;        // for ever
};
int preview(const PreviewOptions& options);

struct ImportOptions {
  std::string work = "import";     // the one there is
  std::vector<std::string> files;  // PNG and CSV: each becomes a layer
  std::string table;
  std::string output;
};
int import_level(const ImportOptions& options);

struct RecordingOptions {
  std::vector<std::string> files;
  std::string game;  // the program, to play two of them side by side
};
int show_recordings(const RecordingOptions& options);

struct AtlasOptions {
  std::string folder = ".";
  std::string output;          // the folder for pages and sheet file; empty: only the header is written
  std::string name = "atlas";  // of the files
  std::string header;          // empty: NAME.hpp in the output folder
  int page = 1024;             // the most pixels along a side
};
int atlas(const AtlasOptions& options);

struct SchemaOptions {
  std::string output = ".";
};
int schema(const SchemaOptions& options);

struct PackageOptions {
  std::string folder = ".";
  std::vector<std::string> targets{"linux"};  // or "web", "windows"
  std::string output = ".";                   // the folder for the package
  std::string program;                        // built already; empty: build it
  bool serve = false;                         // show the page of "web" until the program is ended
};
int package(const PackageOptions& options, const std::string& program);

struct SetupOptions {
  std::string target = "web";  // or "windows"
};
int setup(const SetupOptions& options, const std::string& program);

// Where CMake finds the Vole that this program belongs to (its vole_DIR); empty when it will find it by
// itself.
std::string vole_cmake_folder(const std::string& program);
