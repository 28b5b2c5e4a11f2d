#include "vole/world/component_hooks.hpp"

#include <fmt/core.h>

#include "vole/asset/sheet.hpp"
#include "vole/base/error.hpp"
#include "vole/level/level.hpp"
#include "vole/world/compiled_kinds.hpp"
#include "vole/world/probes.hpp"
#include "vole/world/sprite.hpp"

namespace vole {

std::string_view OfKind::name() const {
  return kind_.name;
}

const void* OfKind::find(std::size_t type) const {
  for (const CompiledKind::Part& part : kind_.parts)
    if (part.type->number == type) return part.component.get();
  return nullptr;
}

bool OfKind::has_sprite() const {
  return kind_.sprite != nullptr;
}

const Sheet* OfKind::sheet() const {
  return kind_.sprite ? kind_.sprite->sheet() : nullptr;
}

std::vector<std::string> OfKind::facts() const {
  std::vector<std::string> facts;
  for (const std::string_view own : enum_names(FactSource::game))
    if (!own.empty()) facts.emplace_back(own);
  if (const auto* const probes = find<Probes>())
    for (const auto& item : probes->all) facts.push_back(item.name);
  if (sheet())
    for (const std::string& fact : sheet()->rules.facts()) facts.push_back(fact);
  return facts;
}

Catalog& OfKind::catalog() const {
  return binding_.catalog;
}

void OfKind::expect_category(const Located<std::string>& name) const {
  report_.gather([&] { kinds_.categories.number(name.value, name.where); });
}

const Level& InLevel::file(std::string_view what, const Located<std::string>& name) const {
  if (!level_) throw Error(name.where, fmt::format("no {} \"{}\": no level is loaded", what, name.value));
  return piece_ ? *piece_ : *level_;
}

void InLevel::expect_place(const Located<std::string>& name) const {
  if (!name.value.empty()) file("place", name).place(name.value, name.where);
}

void InLevel::expect_path(const Located<std::string>& name) const {
  if (!name.value.empty()) file("path", name).path(name.value, name.where);
}

void InLevel::expect_layer(const Located<std::string>& name) const {
  if (level_) level_->layer(name.value, name.where);
}

}  // namespace vole
