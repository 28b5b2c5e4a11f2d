// A folder that any web server can serve, and the same as a ZIP: the page, the program, and the game's files in one.
#include <fmt/core.h>

#include <algorithm>

#include "embedded.hpp"
#include "fill_in.hpp"
#include "licences.hpp"
#include "other_system.hpp"
#include "package_targets.hpp"
#include "vole/base/error.hpp"
#include "vole/base/file_set.hpp"
#include "vole/base/schema.hpp"
#include "vole/input/controls.hpp"

namespace {

using vole::Bytes;
using vole::TomlValue;

Bytes page_bytes(std::string_view text) {
  return {text.begin(), text.end()};
}

std::string in_html(std::string_view text) {
  return filled_in(text, {{"&", "&amp;"}, {"<", "&lt;"}, {">", "&gt;"}, {"\"", "&quot;"}});
}

TomlValue list_toml() {
  TomlValue list;
  list.type = TomlValue::Type::array;
  return list;
}

TomlValue text_of(std::string_view text) {
  return vole::detail::text_toml(text);
}

// FNV-1a of 32 bits, which the page's script counts too.
std::uint32_t checksum(const Bytes& bytes) {
  std::uint32_t sum = 0x811c9dc5u;
  for (const unsigned char byte : bytes) sum = (sum ^ byte) * 0x01000193u;
  return sum;
}

TomlValue file_node(const std::string& name, const Bytes& bytes) {
  TomlValue file;
  vole::detail::put(file, "name", text_of(name));
  vole::detail::put(file, "size", vole::detail::number_toml(static_cast<double>(bytes.size()), true));
  vole::detail::put(file, "checksum", vole::detail::number_toml(checksum(bytes), true));
  return file;
}

// What the page's touch areas press: the first input of each action and axis, but for pads.
TomlValue touch_node(const vole::Controls& controls) {
  const auto first = [](const std::vector<vole::Chord>& bound) {
    const auto found = std::find_if(bound.begin(), bound.end(), [](const vole::Chord& binding) {
      return binding.all.size() == 1 && vole::name_of(binding).starts_with("key ");
    });
    return found == bound.end() ? std::string() : vole::name_of(*found);
  };
  TomlValue axes = list_toml(), actions = list_toml(), touch;
  for (const vole::Axis& axis : controls.axes) {
    const std::string less = first(axis.less), more = first(axis.more);
    if (less.empty() || more.empty()) continue;
    TomlValue toml;
    vole::detail::put(toml, "name", text_of(axis.name));
    vole::detail::put(toml, "less", text_of(less));
    vole::detail::put(toml, "more", text_of(more));
    vole::detail::put(toml, "upright",
                      vole::detail::yes_no_toml(less == "key ArrowUp" || less == "key KeyW"));
    axes.items.push_back(std::move(toml));
  }
  for (const vole::Action& action : controls.actions) {
    const std::string control = first(action.bindings);
    if (control.empty()) continue;
    TomlValue toml;
    vole::detail::put(toml, "name", text_of(action.name));
    vole::detail::put(toml, "control", text_of(control));
    actions.items.push_back(std::move(toml));
  }
  vole::detail::put(touch, "axes", std::move(axes));
  vole::detail::put(touch, "actions", std::move(actions));
  return touch;
}

vole::Controls controls_of(const vole::Project& project) {
  const std::string file = vole::join_path(project.root, "controls.toml");
  return vole::file_exists(file) ? vole::read_controls(file) : vole::Controls{};
}

std::string page(std::string_view text, const vole::Project& project, const TomlValue& about) {
  return filled_in(text, {{"@ID@", project.id.value},
                          {"@ICON@", project.icon.value.empty() ? "data:," : "icon.png"},
                          {"@TITLE@", in_html(project.title.value)},
                          // Nothing in the data may look like the end of its element.
                          {"@GAME@", filled_in(to_json(about), {{"<", "\\u003c"}})}});
}

std::string megabytes(const Bytes& bytes) {
  return fmt::format("{:.2f} MB ({:.2f} with gzip)", static_cast<double>(bytes.size()) / 1e6,
                     static_cast<double>(gzipped_size(bytes)) / 1e6);
}

std::vector<PackedFile> collect_page(const vole::Project& project, const std::string& program) {
  const std::string& id = project.id.value;
  if (!program.ends_with(".js"))
    throw vole::Error(vole::FilePosition::whole_file(program), "is no program for a page",
                      "it ends in .js, and has a file that ends in .wasm beside it");
  const std::string wasm = program.substr(0, program.size() - 3) + ".wasm";
  constexpr std::size_t most = std::size_t{1} << 30;
  std::vector<PackedFile> files{{id + ".js", vole::read_bytes(program, most)},
                                {id + ".wasm", vole::read_bytes(wasm, most)},
                                {"files.tar", tar_of("files.tar", packed_game(project, ""))}};
  fmt::print(stderr, "the program: {}, the game's files: {}\n", megabytes(files[1].content),
             megabytes(files[2].content));
  TomlValue about;
  vole::detail::put(about, "id", text_of(id));
  vole::detail::put(about, "program", file_node(files[1].path, files[1].content));
  vole::detail::put(about, "files", file_node(files[2].path, files[2].content));
  vole::detail::put(about, "touch", touch_node(controls_of(project)));
  for (const EmbeddedFile& file : embedded_page()) {
    const std::string_view text(reinterpret_cast<const char*>(file.bytes), file.size);
    files.push_back(
        {std::string(file.path), page_bytes(file.path == "index.html" ? page(text, project, about) : text)});
  }
  if (!project.icon.value.empty())
    files.push_back({"icon.png", vole::read_bytes(vole::join_path(project.root, project.icon.value), most)});
  for (PackedFile& licence : licence_files({}, {{"emscripten", "emscripten"}})) {
    licence.path = "licences/" + licence.path;
    files.push_back(std::move(licence));
  }
  return files;
}

// Only a page of ours is written over.
void expect_ours_or_new(const std::string& folder) {
  if (!vole::folder_exists(folder) || vole::list_files(folder).empty()) return;
  const auto first_line = [](std::string_view text) { return text.substr(0, text.find('\n')); };
  const std::string script = vole::join_path(folder, "page.js");
  for (const EmbeddedFile& file : embedded_page())
    if (file.path == "page.js" && vole::file_exists(script) &&
        first_line(vole::read_text(script, std::size_t{1} << 20)) ==
            first_line({reinterpret_cast<const char*>(file.bytes), file.size}))
      return;
  throw vole::Error(vole::FilePosition::whole_file(folder),
                    "is there already, and was not made by this command",
                    "give another output folder, or remove it");
}

}  // namespace

std::vector<std::string> package_for_web(const PackageWish& wish) {
  const std::string program = wish.options.program.empty() ? build_for(other_system("web", wish.tool), wish,
                                                                       wish.project.id.value + ".js")
                                                           : wish.options.program;
  std::vector<PackedFile> files = collect_page(wish.project, program);
  const std::string name = package_name(wish.project, "web");
  std::string folder = vole::join_path(wish.options.output, name);
  expect_ours_or_new(folder);
  vole::FileSet set;
  for (const PackedFile& file : files) set.add(vole::join_path(folder, file.path), file.content);
  set.put_in_place();
  std::string zip = folder + ".zip";
  write_zip(zip, std::move(files));
  return {std::move(folder), std::move(zip)};
}
