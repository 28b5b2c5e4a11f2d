// Every value within a described one, however deep: fields, items of lists, what is optional.
#pragma once

#include "vole/base/describe.hpp"

namespace vole::detail {

template <class T, class Visit>
void visit_values(T& value, const FieldRule& rule, Visit& visit);

template <class Visit>
class ValueVisitor {
 public:
  explicit ValueVisitor(Visit& visit) : visit_(visit) {}
  template <class T>
  void operator()(std::string_view, T& field, const FieldRule& rule = {}) {
    visit_values(field, rule, visit_);
  }
  template <class T>
  void state(std::string_view, T& field, const FieldRule& rule = {}) {
    visit_values(field, rule, visit_);
  }
  template <class T>
  void rest(Named<T>& fields) {
    visit_values(fields, {}, visit_);
  }

 private:
  Visit& visit_;
};

// Calls visit(value, rule), and where that returns false, the same for all that the value consists of. Items of a list have
// the list's rule.
template <class T, class Visit>
void visit_values(T& value, const FieldRule& rule, Visit& visit) {
  if (visit(value, rule)) return;
  if constexpr (IsOptional<T>::value) {
    if (value) visit_values(*value, rule, visit);
  } else if constexpr (IsLocated<T>::value) {
    visit_values(value.value, rule, visit);
  } else if constexpr (IsNamed<T>::value) {
    for (auto& item : value) visit_values(item.value, rule, visit);
  } else if constexpr (std::is_same_v<T, std::vector<bool>>) {
    // has nothing that could be visited by reference
  } else if constexpr (IsVector<T>::value || IsArray<T>::value) {
    for (auto& item : value) visit_values(item, rule, visit);
  } else if constexpr (Described<T>) {
    ValueVisitor<Visit> visitor(visit);
    describe(visitor, value);
  }
}

}  // namespace vole::detail
