// A described struct from a TOML table.
//
//   Bulb bulb;
//   read(toml, bulb, report);      // unknown keys and wrong types go to the report
#pragma once

#include <cstdint>

#include "vole/base/described_type.hpp"
#include "vole/base/error.hpp"
#include "vole/base/toml_value.hpp"

namespace vole {

namespace detail {

// All return whether it holds, and report otherwise.
bool check_limits(const TomlValue& toml, double value, const FieldRule& rule, Report& report);
bool expect(const TomlValue& toml, TomlValue::Type type, std::string_view wanted, Report& report);
bool check_items(const TomlValue& toml, const FieldRule& rule, TableOf of, Report& report);
void report_type(const TomlValue& toml, std::string_view wanted, Report& report);

}  // namespace detail

// Reads the fields of one table; finish() reports the keys that were not read.
class Reader {
 public:
  // Both must outlive the reader.
  Reader(const TomlValue& table, Report& report, TableOf table_of = TableOf::file);

  template <class T>
  void operator()(std::string_view key, T& field, const FieldRule& rule = {}) {
    read(key, &field, field_type<T>(), rule);
  }
  // A field of a described struct.
  void read(const DescribedField& field, void* owner);
  void finish();

 private:
  void read(std::string_view key, void* value, const FieldType& type, const FieldRule& rule);
  void read_state(std::string_view key, void* value, const FieldType& type, const FieldRule& rule);
  void read_rest(void* list, const detail::NamedType& type);
  const TomlValue* take(std::string_view key, bool required);
  bool was_asked(std::string_view key) const;

  const TomlValue& table_;
  Report& report_;
  TableOf of_;
  std::vector<std::string> asked_;
  bool rest_taken_ = false;
};

// Reads one value, of any type a field may have.
template <class T>
void read_value(const TomlValue& toml, T& value, const FieldRule& rule, Report& report,
                TableOf of = TableOf::file) {
  field_type<T>().read(toml, &value, rule, report, of);
}

// Reads a described struct from a table. Fields that the table leaves out keep their values.
template <Described T>
void read(const TomlValue& toml, T& value, Report& report, TableOf of = TableOf::file) {
  described_type<T>().read(toml, &value, {}, report, of);
}

}  // namespace vole
