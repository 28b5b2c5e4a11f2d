#include "vole/scene/known_saves.hpp"

#include <algorithm>
#include <utility>

#include "vole/asset/picture.hpp"
#include "vole/base/base64.hpp"

namespace vole {
namespace {

std::shared_ptr<const Picture> picture_in(const std::string& text) {
  try {
    if (const std::optional<Bytes> bytes = from_base64(text); bytes && !bytes->empty())
      return std::make_shared<Picture>(decode_png(*bytes, FilePosition{}));
  } catch (const Error&) {
    // A save without its picture is as good as any.
  }
  return nullptr;
}

}  // namespace

void KnownSaves::put(std::vector<SaveSlot> slots) {
  if (slots.size() > most_slots) slots.resize(most_slots);
  for (SaveSlot& slot : slots)
    if (slot.picture.size() > most_picture_bytes) slot.picture.clear();
  slots_ = std::move(slots);
}

const Picture* KnownSaves::picture(std::string_view name) const {
  const auto slot =
      std::find_if(slots_.begin(), slots_.end(), [name](const SaveSlot& each) { return each.name == name; });
  if (slot == slots_.end() || slot->picture.empty()) return nullptr;
  const auto made = std::find_if(shown_.begin(), shown_.end(),
                                 [&](const Shown& each) { return each.text == slot->picture; });
  if (made != shown_.end()) return made->picture.get();
  if (shown_.size() >= most_slots) shown_.erase(shown_.begin());
  return shown_.emplace_back(Shown{slot->picture, picture_in(slot->picture)}).picture.get();
}

}  // namespace vole
