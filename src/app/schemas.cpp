#include "vole/app/schemas.hpp"

#include "vole/app/project.hpp"
#include "vole/asset/atlas.hpp"
#include "vole/asset/font.hpp"
#include "vole/base/check_notes.hpp"
#include "vole/base/file_set.hpp"
#include "vole/base/paths.hpp"
#include "vole/base/schema.hpp"
#include "vole/input/controls.hpp"
#include "vole/input/recording.hpp"
#include "vole/level/kinds.hpp"
#include "vole/level/level.hpp"

namespace vole {
namespace {

// A table of components; those that only the game knows are any table.
TomlValue kind_schema(const ComponentTypes& types) {
  TomlValue components;
  for (const ComponentTypes::Type& type : types.all())
    if (type.use == ComponentTypes::Use::files) detail::put(components, type.name, type.schema());
  TomlValue head = schema_of<KindHead>();
  for (TomlValue::Entry& key : head.find("properties")->entries)
    detail::put(components, key.key, std::move(key.value));
  TomlValue schema = detail::type_schema("object");
  detail::put(schema, "properties", std::move(components));
  detail::put(schema, "additionalProperties", detail::type_schema("object"));
  return schema;
}

TomlValue kinds_schema(const ComponentTypes& types) {
  TomlValue notes;
  detail::put(notes, "check", schema_of<CheckNotes>());
  TomlValue schema = detail::type_schema("object");
  detail::put(schema, "properties", std::move(notes));
  detail::put(schema, "additionalProperties", kind_schema(types));
  return schema;
}

}  // namespace

std::vector<SchemaFile> all_schemas(const ComponentTypes& types) {
  const auto file = [](std::string_view name, std::string_view title, TomlValue schema) {
    return SchemaFile{std::string(name), to_json(file_schema(title, std::move(schema)))};
  };
  return {file("game", "A game: game.toml", schema_of<Project>()),
          file("controls", "Actions and axes: controls.toml", controls_schema()),
          file("kinds", "Templates of things: kinds.toml", kinds_schema(types)),
          file("sheet", "Frames and clips: NAME.sheet.toml", AssetType<Sheet>::schema()),
          file("font", "A TrueType font: NAME.font.toml", AssetType<Font>::schema()),
          file("atlas", "Packed sheets: NAME.atlas.toml", AssetType<Atlas>::schema()),
          file("tileset", "Tiles: NAME.tileset.toml", AssetType<Tileset>::schema()),
          file("level", "A level: NAME.level.toml", AssetType<Level>::schema()),
          file("run", "A recorded run: NAME.run", recording_schema())};
}

std::vector<std::string> write_schemas(const ComponentTypes& types, const std::string& folder) {
  FileSet files;
  std::vector<std::string> written;
  for (const SchemaFile& file : all_schemas(types)) {
    const std::string path = join_path(folder, file.name + ".schema.json");
    // The first lines of what is written: a file that begins otherwise is somebody's own.
    expect_made_by_vole(path, "{\n  \"$comment\": \"Made by Vole");
    files.add(path, file.text);
    written.push_back(path);
  }
  files.put_in_place();
  return written;
}

}  // namespace vole
