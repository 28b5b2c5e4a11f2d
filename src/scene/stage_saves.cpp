#include "vole/scene/stage_saves.hpp"

#include <utility>

#include "vole/saves/save_file.hpp"
#include "vole/saves/save_folder.hpp"
#include "vole/scene/known_saves.hpp"

namespace vole {
namespace {

// At most so many bytes of it, and no part of a letter.
std::string cut_text(std::string text, std::size_t most) {
  if (text.size() <= most) return text;
  const auto is_inside = [&text](std::size_t at) {
    return (static_cast<unsigned char>(text[at]) & 0xc0) == 0x80;
  };
  while (most > 0 && is_inside(most)) --most;
  text.resize(most);
  return text;
}

}  // namespace

StageSaves::StageSaves(const KnownSaves* saves) : saves_(saves) {
  static const KnownSaves none;
  if (!saves_) saves_ = &none;
}

void StageSaves::ask_outside(SaveAsked::Does does, std::string_view name, SaveAs as) {
  expect_save_name(name, longest_slot_name);
  as.title = cut_text(std::move(as.title), SaveHead::longest_title);
  outbox_.saves.push_back({does, std::string(name), std::move(as), {}});
}

void StageSaves::save(std::string_view name, SaveAs as) {
  ask_outside(SaveAsked::Does::saves, name, std::move(as));
}
void StageSaves::load(std::string_view name) {
  ask_outside(SaveAsked::Does::loads, name, {});
}
void StageSaves::remove_save(std::string_view name) {
  ask_outside(SaveAsked::Does::removes, name, {});
}
const std::vector<SaveSlot>& StageSaves::saves() const {
  return saves_->slots();
}

}  // namespace vole
