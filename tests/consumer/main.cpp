#include <cstdio>
#include <vole/vole.hpp>

int main() {
  vole::Random chance(3);
  vole::Image image({4, 4}, *vole::parse_colour("#24352a"));
  std::printf("vole %s, %u, %zu bytes of PNG\n", vole::version.data(), chance.below(6),
              vole::encode_png(image).size());
  return 0;
}
