#include "vole/app/player_saves.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <ctime>
#include <utility>

#include "vole/app/game.hpp"
#include "vole/asset/image.hpp"
#include "vole/base/base64.hpp"
#include "vole/base/names.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/writing.hpp"

namespace vole {
namespace {

std::string file_name(std::string_view begin, std::string_view name) {
  return std::string(begin) + std::string(name);
}

std::string time_now() {
  const std::time_t now = std::time(nullptr);
  const std::tm* const local = std::localtime(&now);
  char text[32] = "";
  if (local) static_cast<void>(std::strftime(text, sizeof text, "%Y-%m-%d %H:%M", local));
  return text;
}

// What is said of a file goes on in the same sentence.
std::string reason(const Error& error) {
  const Problem& problem = error.problems().front();
  const bool goes_on = problem.text.starts_with("is ") || problem.text.starts_with("cannot ") ||
                       problem.text.starts_with("has ");
  return (goes_on ? "it " : "") + problem.text;
}

// Reads the tables of one value into a value of it.
void read_into(const Game& game, const ValueTypes::One& one, TomlValue holds, int version, void* value) {
  game.save_versions().bring_up(holds, version);
  Report report;
  if (const TomlValue* const values = holds.find("values"))
    if (const TomlValue* const own = values->find(one.name))
      one.type->read(*own, value, {}, report, TableOf::state);
  report.throw_if_errors();
}

}  // namespace

PlayerSaves::PlayerSaves(const std::string& folder, const std::string& game_id, const Game& game)
    : folder_(folder, game_id), game_id_(game_id), game_(game), keeps_(!folder.empty()) {}

void PlayerSaves::begin() {
  if (!keeps_) return;
  for (const ValueTypes::One& one : game_.values().all())
    if (one.lasts == Lasts::between_runs) read_value(one.name);
  for (SaveFolder::Listed& one : folder_.list(slot_file_begin)) {
    count_ = std::max(count_, one.head.count);
    slots_.push_back({one.name.substr(slot_file_begin.size()), std::move(one.head.title),
                      std::move(one.head.time), std::move(one.problem), std::move(one.head.picture)});
  }
  if (!slots_.empty()) list();
}

void PlayerSaves::read_value(const std::string& name) {
  try {
    auto read = folder_.read(file_name(value_file_begin, name));
    if (!read) return;
    arrived_.values.push_back({name, read->save.head.version, std::move(read->save.lines)});
    if (!read->problem.empty()) arrived_.answers.push_back({SaveAnswer::Done::kept, name, read->problem});
  } catch (const Error& error) {
    arrived_.answers.push_back(
        {SaveAnswer::Done::kept, name,
         fmt::format("What was kept as \"{}\" cannot be used: {}.", name, reason(error))});
  }
}

void PlayerSaves::forget(const std::string& name) {
  std::erase_if(slots_, [&](const SaveSlot& slot) { return slot.name == name; });
}

void PlayerSaves::list() {
  arrived_.lists = true;
  arrived_.slots = slots_;
}

void PlayerSaves::take(const Outbox& out, const std::function<const Image&()>& picture) {
  for (const SaveAsked& asked : out.saves) do_asked(asked, picture);
  for (const KeptValue& value : out.kept) {
    if (!keeps_) continue;
    std::erase_if(unwritten_, [&](const KeptValue& known) { return known.name == value.name; });
    unwritten_.push_back(value);
  }
}

void PlayerSaves::do_asked(const SaveAsked& asked, const std::function<const Image&()>& picture) {
  using Does = SaveAsked::Does;
  using Done = SaveAnswer::Done;
  const Done done = asked.does == Does::saves   ? Done::saved
                    : asked.does == Does::loads ? Done::loaded
                                                : Done::removed;
  SaveAnswer answer{done, asked.name};
  try {
    if (!keeps_) throw Error(FilePosition{}, "nothing is kept in this run");
    if (done == Done::loaded) return load(asked.name);
    if (done == Done::saved) {
      save(asked, picture);
    } else {
      folder_.remove(file_name(slot_file_begin, asked.name));
      forget(asked.name);
    }
    list();
  } catch (const Error& error) {
    constexpr std::string_view words[] = {"saved", "loaded", "removed"};
    answer.problem = fmt::format("\"{}\" is not {}: {}.", asked.name, words[static_cast<std::size_t>(done)],
                                 reason(error));
  }
  arrived_.answers.push_back(std::move(answer));
}

std::string PlayerSaves::text_of(const SaveHead* now, SaveHead& head, const std::string& holds) {
  // Another copy of the game may have saved meanwhile.
  if (now) count_ = std::max(count_, now->count);
  head.game = game_id_;
  head.version = game_.save_versions().now();
  head.time = time_now();
  head.count = ++count_;
  return save_text(head, holds);
}

void PlayerSaves::save(const SaveAsked& asked, const std::function<const Image&()>& picture) {
  SaveHead head;
  head.title = asked.as.title;
  head.picture = to_base64(encode_png(small_picture(picture())));
  folder_.write(file_name(slot_file_begin, asked.name),
                [&](const SaveHead* now) { return text_of(now, head, asked.holds); });
  forget(asked.name);
  slots_.insert(slots_.begin(), {asked.name, head.title, head.time, {}, head.picture});
}

void PlayerSaves::load(const std::string& name) {
  auto read = folder_.read(file_name(slot_file_begin, name));
  if (!read) throw Error(FilePosition{}, "there is no such save");
  // Of several that are asked for in one tick the last counts.
  arrived_.saved = ArrivedSave{name, read->save.head.version, std::move(read->save.lines)};
  if (!read->problem.empty()) arrived_.answers.push_back({SaveAnswer::Done::kept, name, read->problem});
}

void PlayerSaves::write_kept() {
  for (const KeptValue& value : std::exchange(unwritten_, {})) try {
      write_value(value);
    } catch (const Error& error) {
      arrived_.answers.push_back({SaveAnswer::Done::kept, value.name,
                                  fmt::format("\"{}\" is not kept: {}.", value.name, reason(error))});
    }
}

// What another copy of the game has kept is joined with it, and then the game knows of it too.
void PlayerSaves::write_value(const KeptValue& value) {
  const std::vector<ValueTypes::One>& types = game_.values().all();
  const ValueTypes::One& one = types[index_named(types, value.name)];
  const std::string name = file_name(value_file_begin, value.name);
  folder_.write(name, [&](const SaveHead* now) {
    if (now && now->version > game_.save_versions().now())
      throw Error(FilePosition{}, "a newer version of the game has kept it");
    std::string holds = value.holds;
    if (one.join && now) {
      const std::shared_ptr<void> mine = one.type->make(), theirs = one.type->make();
      const auto kept = folder_.read(name);
      try {
        if (kept) read_into(game_, one, kept->save.holds, kept->save.head.version, theirs.get());
        read_into(game_, one, parse_toml(value.holds, value.name), game_.save_versions().now(), mine.get());
        one.join(mine.get(), theirs.get());
        holds = fmt::format("\n[values.{}]\n{}", toml_key(one.name), one.type->to_toml(mine.get()));
      } catch (const Error&) {
        // What cannot be read any more is not joined: it stays beside this as the one before it.
      }
      if (holds != value.holds) arrived_.values.push_back({value.name, game_.save_versions().now(), holds});
    }
    SaveHead head;
    return text_of(now, head, holds);
  });
}

Arrived PlayerSaves::take_arrived() {
  return std::exchange(arrived_, {});
}

Image small_picture(const Image& picture) {
  constexpr int most_wide = 96, most_high = 54;
  const IVec2 size = picture.size();
  const int factor =
      std::max({(size.x + most_wide - 1) / most_wide, (size.y + most_high - 1) / most_high, 1});
  Image small({std::max(size.x / factor, 1), std::max(size.y / factor, 1)});
  for (int y = 0; y < small.size().y; ++y)
    for (int x = 0; x < small.size().x; ++x) {
      int sums[3] = {0, 0, 0}, count = 0;
      for (int dy = 0; dy < factor && y * factor + dy < size.y; ++dy)
        for (int dx = 0; dx < factor && x * factor + dx < size.x; ++dx, ++count) {
          const Colour colour = picture.at(x * factor + dx, y * factor + dy);
          sums[0] += colour.r;
          sums[1] += colour.g;
          sums[2] += colour.b;
        }
      const auto part = [&](int i) { return static_cast<std::uint8_t>(sums[i] / std::max(count, 1)); };
      small.at(x, y) = {part(0), part(1), part(2), 255};
    }
  return small;
}

}  // namespace vole
