#include "vole/asset/atlas.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <filesystem>
#include <map>
#include <set>

#include "atlas_pages.hpp"
#include "command.hpp"
#include "commands.hpp"
#include "file_name.hpp"
#include "game_files.hpp"
#include "names_header.hpp"
#include "progress.hpp"
#include "vole/base/file_set.hpp"
#include "vole/base/paths.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/toml_value.hpp"
#include "vole/base/writing.hpp"

namespace {

struct AtlasOptions {
  std::string folder = ".";
  std::string output;          // the folder for pages and sheet file; empty: only the header is written
  std::string name = "atlas";  // of the files
  std::string header;          // empty: NAME.hpp in the output folder
  int page = 1024;             // the most pixels along a side
  std::string depfile;         // empty: none
};

// The first lines of what is written: a file that begins otherwise is not ours to replace.
constexpr std::string_view made_by_atlas = "# Made by `vole atlas`; changes are lost when it runs again.";

using vole::Catalog;
using vole::Error;
using vole::FilePosition;
using vole::TomlValue;

// The catalog of a game's folder, or of a folder that holds nothing but assets.
class SourceFolder {
 public:
  explicit SourceFolder(const std::string& folder) {
    if (!vole::folder_exists(folder)) throw Error(FilePosition::whole_file(folder), "no such folder");
    const std::filesystem::path whole =
        std::filesystem::absolute(folder + "/").lexically_normal().parent_path();
    const std::string above = whole.parent_path().generic_string();
    if (vole::file_exists(vole::join_path(folder, "game.toml"))) {
      catalog_ = std::make_unique<Catalog>(folder);
    } else if (whole.filename() == "assets" && vole::file_exists(vole::join_path(above, "game.toml"))) {
      catalog_ = std::make_unique<Catalog>(above);
    } else {
      catalog_ = std::make_unique<Catalog>(folder);
      catalog_->set_assets_folder(".");
    }
  }
  Catalog& catalog() { return *catalog_; }

 private:
  std::unique_ptr<Catalog> catalog_;
};

// Reads each picture once, as its file has it.
class ImageStore {
 public:
  explicit ImageStore(Catalog& catalog) : catalog_(catalog) {}
  const vole::Image& get(const std::string& picture) {
    const auto [found, is_new] = images_.try_emplace(picture);
    if (is_new) found->second = vole::read_png(catalog_.asset_path(picture + ".png"));
    return found->second;
  }

 private:
  Catalog& catalog_;
  std::map<std::string, vole::Image> images_;
};

struct PackedSheet {
  std::shared_ptr<const vole::Sheet> sheet;
  TomlValue text;                   // what its file says, beyond where its frames are
  std::vector<std::size_t> frames;  // numbers in the pages
};

// The sheet's own keys; those that say where its frames come from are the atlas's business now.
TomlValue own_text(Catalog& catalog, const vole::Sheet& sheet) {
  const std::string file = catalog.asset_path(sheet.name + ".sheet.toml");
  TomlValue text = vole::file_exists(file) ? vole::read_toml(file) : TomlValue{};
  const std::vector<std::string_view> gone =
      sheet.stand_in ? std::vector<std::string_view>{"check"}
                     : std::vector<std::string_view>{"picture", "pages", "folder", "frame",
                                                     "frames",  "check", "columns"};
  std::erase_if(text.entries, [&](const TomlValue::Entry& entry) {
    return std::find(gone.begin(), gone.end(), entry.key) != gone.end();
  });
  return text;
}

PackedSheet take_in(Catalog& catalog, const std::string& name, ImageStore& images, AtlasPages& pages) {
  PackedSheet packed;
  packed.sheet = catalog.get<vole::Sheet>(name).shared();
  const vole::Sheet& sheet = *packed.sheet;
  packed.text = own_text(catalog, sheet);
  if (sheet.stand_in) return packed;
  for (const vole::Frame& frame : sheet.frames) {
    const auto picture = std::find_if(sheet.pictures.begin(), sheet.pictures.end(),
                                      [&](const auto& each) { return each.get() == frame.picture; });
    const auto index = static_cast<std::size_t>(picture - sheet.pictures.begin());
    packed.frames.push_back(pages.add(images.get(sheet.picture_names[index]), frame.area));
  }
  return packed;
}

std::string frame_line(const PackedSheet& packed, std::size_t index, const AtlasPages& pages) {
  const vole::Frame& frame = packed.sheet->frames[index];
  const AtlasPages::Spot spot = pages.spot(packed.frames[index]);
  const vole::IVec2 offset = spot.offset + frame.offset;
  const std::string key = vole::toml_key(
      packed.sheet->frame_names.empty() ? std::to_string(index) : packed.sheet->frame_names[index]);
  std::string line = fmt::format("{} = {{ area = [{}, {}, {}, {}]", key, spot.area.at.x, spot.area.at.y,
                                 spot.area.size.x, spot.area.size.y);
  if (spot.page != 0) line += fmt::format(", page = {}", spot.page);
  if (offset != vole::IVec2{0, 0}) line += fmt::format(", offset = [{}, {}]", offset.x, offset.y);
  if (spot.area.size + offset != frame.size)
    line += fmt::format(", size = [{}, {}]", frame.size.x, frame.size.y);
  if (frame.pivot != packed.sheet->pivot.in(frame.size))
    line += fmt::format(", pivot = [{}, {}]", frame.pivot.x, frame.pivot.y);
  return line + " }\n";
}

std::string atlas_text(const std::vector<PackedSheet>& sheets, const AtlasPages& pages,
                       const std::string& name) {
  std::string text = fmt::format("{}\npages = [", made_by_atlas);
  for (std::size_t i = 0; i < pages.pages().size(); ++i)
    text += fmt::format("{}\"{}-{}.png\"", i ? ", " : "", name, i + 1);
  text += "]\n";
  for (const PackedSheet& packed : sheets) {
    const std::string key = vole::toml_key(packed.sheet->name);
    text += fmt::format("\n[sheets.{}]\n", key);
    for (const TomlValue::Entry& entry : packed.text.entries)
      text += vole::toml_key(entry.key) + " = " + vole::to_toml(entry.value) + "\n";
    if (packed.sheet->columns > 0 && packed.sheet->frames.size() > 1)
      text += fmt::format("columns = {}\n", packed.sheet->columns);
    if (packed.frames.empty()) continue;
    text += fmt::format("[sheets.{}.frames]\n", key);
    for (std::size_t i = 0; i < packed.frames.size(); ++i) text += frame_line(packed, i, pages);
  }
  return text;
}

// NAME-1.png and so on: a list that was edited by hand must not make somebody's picture a page.
bool is_page_name(std::string_view page, std::string_view name) {
  if (!page.starts_with(name) || !page.ends_with(".png") || page.size() < name.size() + 6) return false;
  page.remove_prefix(name.size());
  const std::string_view number = page.substr(1, page.size() - 5);
  return page.front() == '-' && number.find_first_not_of("0123456789") == std::string_view::npos;
}

// The pages of an atlas that an earlier run left under this name. Throws Error when what is there under its name is
// none of ours.
std::set<std::string> pages_there(const std::string& file, const std::string& name) {
  std::set<std::string> pages;
  if (!vole::file_exists(file)) return pages;
  vole::expect_made_by_vole(file, made_by_atlas);
  const TomlValue root = vole::read_toml(file);
  if (const TomlValue* const listed = root.find("pages"))
    for (const TomlValue& page : listed->items)
      if (is_page_name(page.text, name)) pages.insert(page.text);
  return pages;
}

// Pages of an earlier run may be replaced; any other picture of that name is somebody's.
void expect_free_or_ours(const std::string& path, const std::string& name,
                         const std::set<std::string>& ours) {
  if (vole::file_exists(path) && ours.count(name) == 0)
    throw Error(FilePosition::whole_file(path), "is there already, and is no page of this atlas",
                "choose another --name or another folder");
}

void write_files(const std::string& file, const AtlasPages& pages, const std::vector<PackedSheet>& sheets,
                 const AtlasOptions& options) {
  std::set<std::string> left = pages_there(file, options.name);
  const std::set<std::string> ours = left;
  vole::FileSet files;
  Progress writing("writing pages", pages.pages().size());
  for (std::size_t i = 0; i < pages.pages().size(); ++i, writing.step()) {
    const std::string name = fmt::format("{}-{}.png", options.name, i + 1);
    const std::string path = vole::join_path(options.output, name);
    expect_free_or_ours(path, name, ours);
    files.add(path, vole::encode_png(pages.pages()[i]));
    left.erase(name);
  }
  files.add(file, atlas_text(sheets, pages, options.name));
  files.put_in_place();
  // What the earlier run wrote and this one did not.
  for (const std::string& page : left) {
    std::error_code failed;
    std::filesystem::remove(vole::to_path(vole::join_path(options.output, page)), failed);
  }
}

void write_atlas(Catalog& catalog, const AtlasOptions& options) {
  vole::Report report;
  ImageStore images(catalog);
  AtlasPages pages;
  std::vector<PackedSheet> sheets;
  std::vector<std::string> names = sheets_of_game(catalog);
  for (const std::string& name : pictures_of_tilesets(catalog)) names.push_back(name);
  std::sort(names.begin(), names.end());
  names.erase(std::unique(names.begin(), names.end()), names.end());
  Progress progress("reading", names.size());
  for (const std::string& name : names) {
    progress.step();
    report.gather([&] { sheets.push_back(take_in(catalog, name, images, pages)); });
  }
  report.throw_if_errors();
  if (sheets.empty()) throw Error(FilePosition::whole_file(options.folder), "holds no picture to pack");
  pages.lay_out(options.page);
  const std::string file = vole::join_path(options.output, options.name + ".atlas.toml");
  write_files(file, pages, sheets, options);
  fmt::print("{}: {} sheets, {} frames ({} different), {} page{}, {:.1f} % used\n", file, sheets.size(),
             pages.frames(), pages.different(), pages.pages().size(), pages.pages().size() == 1 ? "" : "s",
             pages.used() * 100);
}

// Left as it is when nothing changes, so that nothing is recompiled for it.
void write_header(Catalog& catalog, const std::string& path) {
  const std::string header = names_header(names_of_game(catalog));
  if (vole::expect_made_by_vole(path, made_by_names) != header) vole::write_whole(path, header);
  fmt::print("{}\n", path);
}

// As make and ninja read it.
std::string in_depfile(const std::string& path) {
  std::string text;
  for (const char c : std::filesystem::absolute(vole::to_path(path)).lexically_normal().generic_string()) {
    if (c == ' ' || c == '#') text += '\\';
    if (c == '$') text += '$';
    text += c;
  }
  return text;
}

// The folders count too: a file that comes or goes changes them.
void write_depfile(const AtlasOptions& options) {
  std::set<std::string> paths{in_depfile(options.folder)};
  for (const std::string& file : files_with_names(options.folder)) {
    paths.insert(in_depfile(vole::join_path(options.folder, file)));
    paths.insert(in_depfile(vole::join_path(options.folder, vole::folder_of(file))));
  }
  const std::string made = in_depfile(options.depfile.substr(0, options.depfile.size() - 2)) + ":";
  std::string text = made;
  for (const std::string& path : paths) text += " \\\n  " + path;
  vole::expect_made_by_vole(options.depfile, made);
  vole::write_whole(options.depfile, text + "\n");
}

void atlas(const AtlasOptions& options) {
  SourceFolder source(options.folder);
  if (!options.output.empty()) write_atlas(source.catalog(), options);
  const std::string header =
      !options.header.empty() ? options.header : vole::join_path(options.output, options.name + ".hpp");
  write_header(source.catalog(), header);
  if (!options.depfile.empty()) write_depfile(options);
}

}  // namespace

void add_atlas(CommandLine& line) {
  const auto options = std::make_shared<AtlasOptions>();
  Command command = line.add("atlas", "Pack pictures onto pages, and write a C++ header of a game's names",
                             "  vole atlas my-game -o my-game/packed\n"
                             "  vole atlas pictures -o packed --name icons --page 2048\n"
                             "  vole atlas my-game --header src/names.hpp",
                             [options] {
                               if (options->output.empty() && options->header.empty())
                                 throw WrongUsage("--output or --header is required");
                               atlas(*options);
                               return 0;
                             });
  command.word("DIR", options->folder, "A game's folder, or a folder of pictures").needed();
  command.word("-o,--output", options->output, "The folder for pages and sheet file").value_name("DIR");
  command.word("--header", options->header, "Where the header goes; alone: write nothing but the header")
      .value_name("FILE");
  command
      .word("--depfile", options->depfile,
            "For build programs: write into NAME.d what the header is made from, as what NAME depends on")
      .checked_by([](const std::string& name) {
        return name.size() > 2 && name.ends_with(".d") ? std::string() : "a name that ends in .d is wanted";
      })
      .value_name("NAME.d");
  command.word("--name", options->name, "What the files are called")
      .checked_by([](const std::string& name) {
        return is_file_name(name) ? std::string()
                                  : "is made of letters, digits, '-', '_' and '.', and begins with no '.'";
      })
      .shows_default();
  command.word("--page", options->page, "The most pixels along a side of a page")
      .within(16, vole::Image::longest_side)
      .shows_default();
}
