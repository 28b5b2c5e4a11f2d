// Kinds as pictures: what their things look like, and what of them collides.
#pragma once

#include <string>

#include "preview_page.hpp"
#include "vole/asset/sheet.hpp"
#include "vole/physics/collision_world.hpp"
#include "written_things.hpp"

// A thing as it is shown: a frame, and what of it collides.
struct ShownKind {
  std::string name, below;
  std::optional<vole::Frame> frame;
  WrittenThing thing;

  const std::optional<vole::CollisionBody>& body() const { return thing.body; }
  const vole::Probes* probes() const { return thing.probes; }
};
// All that is to be seen of it, around its position.
vole::Rect reach_of(const ShownKind& shown);
void draw_shown(paper::Page& page, const ShownKind& shown, vole::IVec2 at, int scale);
// What the colours mean.
void draw_kind_legend(paper::Page& page, vole::IVec2 at);

// The colour of one shape of a body, by what that is.
vole::Colour mark_of(const vole::CollisionBody& body, std::uint32_t place);

// The kinds of a file, each with its first picture, its body, its probes and its position.
void preview_kinds(vole::Catalog& catalog, const std::string& file, const std::string& output);
// One of them, large, with its points and probes by name; prints its fields, each with the place where it is written.
void preview_kind(vole::Catalog& catalog, const std::string& kind, const std::string& output);
// How high, how far and for how long one of them jumps; prints it, too.
void preview_jump(vole::Catalog& catalog, const std::string& kind, const std::string& output);
// The parts of its mind, as a diagram.
void preview_mind(vole::Catalog& catalog, const std::string& kind, const std::string& output);
// The frames of a sheet with the bodies of the kinds that show it. Throws Error where there is none.
void preview_sheet_shapes(vole::Catalog& catalog, const vole::Sheet& sheet, const std::string& file,
                          const std::string& output);
