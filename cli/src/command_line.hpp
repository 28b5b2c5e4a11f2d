// The words that `vole` understands, said once: for the parser, for --help, for the man pages and for shells that complete.
#pragma once

#include <CLI/CLI.hpp>
#include <functional>
#include <string>

#include "commands.hpp"

class CommandLine {
 public:
  // `tool` is the path of the program itself.
  explicit CommandLine(std::string tool);
  CommandLine(const CommandLine&) = delete;
  CommandLine& operator=(const CommandLine&) = delete;

  // Runs the command and returns the exit code: what the command returns, or 2 for words that are none.
  int run(int argc, char** argv);

 private:
  CLI::App* add(const char* name, const char* description, const char* examples, std::function<int()> work);
  void add_new();
  void add_check();
  void add_preview();
  void add_recording();
  void add_atlas();
  void add_level();
  void add_schema();
  void add_package();
  void add_setup();
  void add_help_files();
  bool is_command(const std::string& word) const;
  // The same for an option that there is not.
  std::string wrong_option() const;
  // What is said when no command is named, or one that there is not; empty otherwise.
  std::string wrong_command(int argc, char** argv) const;

  std::string tool_;
  CLI::App app_;
  int code_ = 0;
  NewOptions new_;
  CheckOptions check_;
  PreviewOptions preview_;
  AtlasOptions atlas_;
  ImportOptions import_;
  RecordingOptions recording_;
  SchemaOptions schema_;
  PackageOptions package_;
  SetupOptions setup_;
  std::string help_folder_;
};
