#include "vole/input/controls.hpp"

#include <fmt/format.h>

#include "vole/base/check_notes.hpp"
#include "vole/base/names.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/schema.hpp"

namespace vole {
namespace {

using Bindings = std::vector<Located<std::string>>;

struct AxisText {
  Bindings less;
  Bindings more;
  Bindings stick;
};
template <class V>
void describe(V& v, AxisText& axis) {
  v("less", axis.less, items(100));
  v("more", axis.more, items(100));
  v("stick", axis.stick, items(100));
}

struct ControlsText {
  Named<Bindings> actions;
  Named<AxisText> axes;
  CheckNotes check;
};
template <class V>
void describe(V& v, ControlsText& controls) {
  v("actions", controls.actions, items(256));
  v("axes", controls.axes, items(256));
  v("check", controls.check);
}

std::vector<Control> bind(const Bindings& bindings, Report& report) {
  std::vector<Control> controls;
  for (const Located<std::string>& binding : bindings) {
    if (const auto control = find_control(binding.value))
      controls.push_back(*control);
    else
      report.error(binding.where, fmt::format("no control \"{}\"", binding.value),
                   did_you_mean(binding.value, control_names()));
  }
  return controls;
}

}  // namespace

Node controls_schema() {
  return schema_of<ControlsText>();
}

Controls read_controls(const std::string& path) {
  Report report;
  ControlsText text;
  read(read_toml(path), text, report);
  Controls controls;
  for (const auto& item : text.actions) controls.actions.push_back({item.name, bind(item.value, report)});
  for (const auto& item : text.axes)
    controls.axes.push_back({item.name, bind(item.value.less, report), bind(item.value.more, report),
                             bind(item.value.stick, report)});
  report.throw_if_errors();
  return controls;
}

}  // namespace vole
