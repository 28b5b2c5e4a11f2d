#include "vole/world/file_here.hpp"

#include "vole/world/world.hpp"

namespace vole {

FileHere file_here(const World& world, Entity thing) {
  const FromPlace* const from = world.entities.find<FromPlace>(thing);
  const std::uint32_t number = from ? from->piece : 0;
  if (!world.level) return {};
  if (number == 0) return {&world.level.file(), world.level.offset()};
  const PutPiece* const piece = world.level.piece(number);
  return piece ? FileHere{&piece->file(), world.level.offset(number)} : FileHere{};
}

}  // namespace vole
