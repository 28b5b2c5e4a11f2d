// A vole gathers bulbs in raised beds before the frost.
#include <vole/window.hpp>

#include "allotment.hpp"

int main(int argc, char** argv) {
  return vole::run(argc, argv, allotment());
}
