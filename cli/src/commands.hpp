// The commands of the program `vole`, in the order of --help. Each declares its words beside what it does.
#pragma once

class CommandLine;

void add_new(CommandLine& line);
void add_check(CommandLine& line);
void add_preview(CommandLine& line);
void add_recording(CommandLine& line);
void add_level(CommandLine& line);
void add_atlas(CommandLine& line);
void add_schema(CommandLine& line);
void add_package(CommandLine& line);
void add_setup(CommandLine& line);
void add_help_files(CommandLine& line);
