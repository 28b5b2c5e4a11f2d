// Showing a folder to browsers of this machine.
#pragma once

#include <string>

// Serves the folder's files on loopback, prints the address, and goes on until the program is ended by a signal. Throws
// vole::Error when no port can be had.
void serve_folder(const std::string& folder);
