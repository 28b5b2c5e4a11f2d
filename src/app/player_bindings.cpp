#include "vole/app/player_bindings.hpp"

#include "vole/input/controls.hpp"

namespace vole {

PlayerBindings::PlayerBindings(std::shared_ptr<const Controls> written)
    : written_(std::move(written)), bound_(written_), gather_(bound_) {}

void PlayerBindings::read(const std::string& file, Report& report) {
  file_ = file;
  settings_ = read_settings(file, report);
  if (!settings_.bindings.empty()) bind();
}

void PlayerBindings::use(std::shared_ptr<const Controls> written) {
  written_ = std::move(written);
  bind();
}

void PlayerBindings::add(std::span<const Rebinding> rebindings) {
  for (const Rebinding& rebinding : rebindings) add_rebinding(settings_, rebinding);
  bind();
  write_settings(file_, settings_);
}

void PlayerBindings::bind() {
  bound_ = std::make_shared<const Controls>(with_rebindings(*written_, settings_.bindings));
  gather_.use(bound_);
}

}  // namespace vole
