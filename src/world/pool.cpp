#include "vole/world/pool.hpp"

#include "vole/base/described_type.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/state.hpp"

namespace vole::detail {

Pool::Pool(const DescribedType& type, const ComponentCopies& copies)
    : type_(&type), memory_(&type.memory()), copies_(&copies), size_(memory_->size) {}

Pool::Pool(Pool&&) noexcept = default;

Pool::~Pool() {
  drop_from(0);
  for (std::byte* const page : pages_) ::operator delete(page, memory_->alignment);
}

void* Pool::room() {
  const std::size_t position = owners_.size(), page = position / page_size;
  if (page == pages_.size()) {
    if (page == pages_.capacity())
      pages_.reserve(2 * page + 1);  // so that nothing can fail once the page is made
    pages_.push_back(static_cast<std::byte*>(::operator new(page_size * memory_->size, memory_->alignment)));
  }
  return at(position);
}

void Pool::hold(std::uint32_t owner) {
  if (owner >= position_.size()) position_.resize(owner + 1, nowhere);
  position_[owner] = static_cast<std::uint32_t>(owners_.size());
  owners_.push_back(owner);
}

void* Pool::add_copy(std::uint32_t owner, const void* component) {
  if (void* const there = find(owner)) {
    forget(position_[owner]);
    copies_->copy_over(there, component);
    return there;
  }
  void* const added = room();
  memory_->make(added);
  copies_->copy_over(added, component);
  hold(owner);
  return added;
}

void Pool::take(std::uint32_t owner) {
  if (!has(owner)) return;
  forget(position_[owner]);
  owners_[position_[owner]] = nowhere;
  position_[owner] = nowhere;
  ++gaps_;
}

void Pool::take_over(std::uint32_t owner, Pool& other) {
  void* const added = room();
  memory_->make(added);
  copies_->move_over(added, other.find(owner));
  hold(owner);
  other.owners_[other.position_[owner]] = nowhere;
  other.position_[owner] = nowhere;
  ++other.gaps_;
}

void Pool::sweep() {
  if (gaps_ == 0) return;
  std::size_t to = 0;
  for (std::size_t from = 0; from < owners_.size(); ++from) {
    if (owners_[from] == nowhere) continue;
    if (to != from) {
      copies_->move_over(at(to), at(from));
      owners_[to] = owners_[from];
      position_[owners_[to]] = static_cast<std::uint32_t>(to);
    }
    ++to;
  }
  drop_from(to);
  gaps_ = 0;
}

void Pool::clear() {
  drop_from(0);
  position_.clear();
  gaps_ = 0;
}

void Pool::drop_from(std::size_t first) {
  for (std::size_t last = owners_.size(); last > first; --last) memory_->end(at(last - 1));
  owners_.resize(first);
}

void Pool::write(StateWriter& out) const {
  out.add_count(owners_.size() - gaps_);
  for (std::size_t i = 0; i < owners_.size(); ++i) {
    if (owners_[i] == nowhere) continue;
    out.add(&owners_[i], sizeof owners_[i]);
    type_->write_state(out, at(i));
  }
}

void Pool::read(StateReader& in, const std::vector<std::uint32_t>& generations) {
  clear();
  for (std::size_t count = in.take_count(); count > 0; --count) {
    std::uint32_t owner = 0;
    in.take(&owner, sizeof owner);
    if (owner >= generations.size() || generations[owner] % 2 == 0 || has(owner)) StateReader::broken();
    void* const added = room();
    memory_->make(added);
    hold(owner);
    type_->read_state(in, added);
  }
}

std::string Pool::to_inline_toml(std::uint32_t owner) const {
  return type_->to_inline_toml(at(position_[owner]));
}

void Pool::from_toml(std::uint32_t owner, const TomlValue& toml, Report& report) {
  const std::shared_ptr<void> component = type_->make();
  type_->read(toml, component.get(), {}, report, TableOf::state);
  add_copy(owner, component.get());
}

}  // namespace vole::detail
