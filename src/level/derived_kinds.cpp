#include "derived_kinds.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <iterator>
#include <map>
#include <optional>

#include "vole/base/names.hpp"
#include "vole/base/reading.hpp"
#include "vole/level/kinds.hpp"

namespace vole {
namespace {

std::int64_t count_values(const TomlValue& toml) {
  std::int64_t count = 1;
  for (const TomlValue& item : toml.items) count += count_values(item);
  for (const TomlValue::Entry& entry : toml.entries) count += count_values(entry.value);
  return count;
}

// Takes its keys out of the table.
KindHead take_head(TomlValue& kind, Report& report) {
  TomlValue written;
  written.where = kind.where;
  const auto first_of_head =
      std::stable_partition(kind.entries.begin(), kind.entries.end(),
                            [](const TomlValue::Entry& entry) { return !is_in_head(entry.key); });
  written.entries.assign(std::make_move_iterator(first_of_head), std::make_move_iterator(kind.entries.end()));
  kind.entries.erase(first_of_head, kind.entries.end());
  KindHead head;
  read(written, head, report);
  if (const TomlValue* const from = written.find("from"); from && from->type != TomlValue::Type::text)
    head.from.reset();
  return head;
}

class Derivation {
 public:
  Derivation(Named<TomlValue>& kinds, Report& report) : kinds_(kinds), report_(report) {
    for (std::size_t i = 0; i < kinds.size(); ++i) {
      by_name_[kinds[i].name] = i;
      heads_.push_back(take_head(kinds[i].value, report));
    }
    states_.resize(kinds.size(), State::written);
  }

  void derive_all() {
    for (std::size_t i = 0; i < kinds_.size(); ++i) derive(i);
  }

 private:
  enum class State : std::uint8_t { written, under_way, done };
  // Along a row of kinds that are made from each other; and of all values that are copied.
  static constexpr std::size_t most_in_a_row = 32;
  static constexpr std::int64_t most_copied = 2'000'000;

  // A row of them is followed to its end first, without recursion: it may be as long as there are kinds.
  void derive(std::size_t kind) {
    std::vector<std::size_t> row;
    for (std::size_t next = kind; states_[next] == State::written;) {
      states_[next] = State::under_way;
      row.push_back(next);
      const std::optional<std::size_t> base = base_of(next);
      if (!base) break;
      if (states_[*base] == State::under_way) {
        const Located<std::string>& from = *heads_[next].from;
        report_.error(from.where, fmt::format("kind \"{}\" is made from itself", kinds_[next].name),
                      "take one \"from\" out of the ring");
        heads_[next].from.reset();
        break;
      }
      next = *base;
    }
    for (; !row.empty(); row.pop_back()) finish(row.back());
  }

  // Throws nothing: a kind whose base is not there is as it is written.
  std::optional<std::size_t> base_of(std::size_t kind) {
    const std::optional<Located<std::string>>& from = heads_[kind].from;
    if (!from) return std::nullopt;
    const auto found = by_name_.find(from->value);
    if (found != by_name_.end()) return found->second;
    report_.error(from->where, fmt::format("no kind \"{}\"", from->value),
                  did_you_mean(from->value, names_of(kinds_)));
    heads_[kind].from.reset();
    return std::nullopt;
  }

  void finish(std::size_t kind) {
    states_[kind] = State::done;
    const KindHead& head = heads_[kind];
    if (!head.from) {
      for (const Located<std::string>& name : head.without)
        report_.error(name.where, "\"without\" leaves out of what a kind is made from: it has no \"from\"");
      return;
    }
    const std::size_t base = by_name_.at(head.from->value);
    depths_.resize(kinds_.size());
    depths_[kind] = depths_[base] + 1;
    copied_ += count_values(kinds_[base].value);
    if (depths_[kind] > most_in_a_row || copied_ > most_copied)
      return report_.error(head.from->where,
                           "kinds are made from kinds that are made from others, and so on, to more than is "
                           "read",
                           "at most 32 in a row, and 2 million values in all");
    TomlValue made = kinds_[base].value;
    made.where = kinds_[kind].value.where;
    for (const Located<std::string>& name : head.without) leave_out(name, made);
    made.merge(kinds_[kind].value);
    kinds_[kind].value = std::move(made);
  }

  void leave_out(const Located<std::string>& name, TomlValue& made) {
    const auto found =
        std::find_if(made.entries.begin(), made.entries.end(),
                     [&name](const TomlValue::Entry& entry) { return entry.key == name.value; });
    if (found != made.entries.end()) {
      made.entries.erase(found);
      return;
    }
    std::vector<std::string> known;
    for (const TomlValue::Entry& entry : made.entries) known.push_back(entry.key);
    report_.error(name.where, fmt::format("there is no \"{}\" to leave out", name.value),
                  did_you_mean(name.value, known));
  }

  Named<TomlValue>& kinds_;
  Report& report_;
  std::map<std::string, std::size_t, std::less<>> by_name_;
  std::vector<KindHead> heads_;
  std::vector<State> states_;
  std::vector<std::size_t> depths_;
  std::int64_t copied_ = 0;
};

}  // namespace

bool is_in_head(std::string_view key) {
  const auto& fields = described_type<KindHead>().table().fields();
  return std::any_of(fields.begin(), fields.end(),
                     [key](const DescribedField& field) { return field.key == key; });
}

void derive_kinds(Named<TomlValue>& kinds, Report& report) {
  Derivation(kinds, report).derive_all();
}

}  // namespace vole
