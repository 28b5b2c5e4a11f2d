#include <vole/window.hpp>

#include "milkround.hpp"

int main(int argc, char** argv) {
  return vole::run(argc, argv, milkround());
}
