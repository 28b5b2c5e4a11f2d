#include <vole/window.hpp>

#include "towpath.hpp"

int main(int argc, char** argv) {
  return vole::run(argc, argv, towpath());
}
