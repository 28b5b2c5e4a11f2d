// Fields that are texts, colours, ids, chance, and TOML as it stands.
#include <charconv>
#include <stdexcept>

#include "number_types.hpp"
#include "vole/base/colour.hpp"
#include "vole/base/entity.hpp"
#include "vole/base/random.hpp"

namespace vole::detail {
namespace {

class TextType final : public FieldType {
 public:
  void read(const TomlValue& toml, void* value, const FieldRule& rule, Report& report,
            TableOf of) const override {
    if (!expect(toml, TomlValue::Type::text, "a text in quotes", report)) return;
    if (toml.text.empty() && of == TableOf::file && rule.empty_text == EmptyText::refused)
      report.error(toml.where, "a text is expected here, and it is empty");
    else
      *static_cast<std::string*>(value) = toml.text;
  }
  void write(TomlText& out, const void* value) const override {
    out.add(std::string_view(*static_cast<const std::string*>(value)));
  }
  void write_state(StateWriter& out, const void* value) const override {
    const auto& text = *static_cast<const std::string*>(value);
    out.add_count(text.size());
    out.add(text.data(), text.size());
  }
  void read_state(StateReader& in, void* value) const override {
    auto& text = *static_cast<std::string*>(value);
    text.resize(in.take_count());
    in.take(text.data(), text.size());
  }
  TomlValue schema(const FieldRule& rule) const override {
    TomlValue schema = type_schema("string");
    if (rule.empty_text == EmptyText::refused) put(schema, "minLength", number_toml(1, true));
    return schema;
  }
};

class ColourType final : public PlainType<Colour> {
 public:
  void read(const TomlValue& toml, void* value, const FieldRule&, Report& report, TableOf) const override {
    const auto colour = toml.type == TomlValue::Type::text ? parse_colour(toml.text) : std::nullopt;
    if (colour)
      in(value) = *colour;
    else
      report_type(toml, "a colour like \"#24352a\" or \"#24352a80\"", report);
  }
  void write(TomlText& out, const void* value) const override {
    out.add(std::string_view(to_text(in(value))));
  }
  TomlValue schema(const FieldRule&) const override {
    TomlValue schema = type_schema("string");
    put(schema, "pattern", text_toml("^#([0-9a-fA-F]{6}|[0-9a-fA-F]{8})$"));
    return schema;
  }
  int parts() const override { return 4; }
  Vec4 parts_of(const void* value) const override {
    const Colour& colour = in(value);
    return Vec4(colour.r, colour.g, colour.b, colour.a);
  }
  void put_parts(void* value, Vec4 to, const FieldRule&) const override {
    in(value) = {whole_part<std::uint8_t>(to.x), whole_part<std::uint8_t>(to.y),
                 whole_part<std::uint8_t>(to.z), whole_part<std::uint8_t>(to.w)};
  }
};

class EntityType final : public PlainType<Entity> {
 public:
  void read(const TomlValue& toml, void* value, const FieldRule& rule, Report& report,
            TableOf of) const override {
    if (toml.type != TomlValue::Type::array || toml.items.size() != 2)
      return report_type(toml, "a pair like [16, 16]", report);
    type_of(Tag<std::uint32_t>{}).read(toml.items[0], &in(value).index, rule, report, of);
    type_of(Tag<std::uint32_t>{}).read(toml.items[1], &in(value).generation, rule, report, of);
    if (!is_sound(value)) report.error(toml.where, "no thing has an even generation");
  }
  void write(TomlText& out, const void* value) const override {
    add_parts(out, std::int64_t{in(value).index}, std::int64_t{in(value).generation});
  }
  bool may_be_broken() const override { return true; }
  bool is_sound(const void* value) const override {
    return in(value).generation % 2 != 0 || in(value) == Entity{};
  }
  TomlValue schema(const FieldRule& rule) const override {
    return tuple_schema(type_of(Tag<std::uint32_t>{}).schema(rule), 2);
  }
};

class RandomType final : public PlainType<Random> {
 public:
  void read(const TomlValue& toml, void* value, const FieldRule&, Report& report, TableOf) const override {
    std::uint64_t bits = 0;
    const char* const end = toml.text.data() + toml.text.size();
    const auto parsed = std::from_chars(toml.text.data(), end, bits, 16);
    if (toml.type != TomlValue::Type::text || parsed.ec != std::errc{} || parsed.ptr != end)
      return report_type(toml, "hexadecimal digits in quotes", report);
    in(value) = Random::from_state(bits);
  }
  void write(TomlText& out, const void* value) const override { out.add_bits(in(value).state()); }
  TomlValue schema(const FieldRule&) const override { return type_schema("string"); }
};

// As it stands: for what a struct reads later on.
class NodeType final : public FieldType {
 public:
  void read(const TomlValue& toml, void* value, const FieldRule&, Report&, TableOf) const override {
    *static_cast<TomlValue*>(value) = toml;
  }
  void write(TomlText& out, const void* value) const override {
    out.add_plain(to_toml(*static_cast<const TomlValue*>(value)));
  }
  void write_state(StateWriter&, const void*) const override { no_state(); }
  void read_state(StateReader&, void*) const override { no_state(); }
  bool has_state() const override { return false; }
  TomlValue schema(const FieldRule&) const override { return TomlValue{}; }

 private:
  [[noreturn]] static void no_state() {
    throw std::logic_error("a TomlValue stands in files alone: it has no state");
  }
};

}  // namespace

const FieldType& type_of(Tag<std::string>) {
  static const TextType type;
  return type;
}
const FieldType& type_of(Tag<Colour>) {
  static const ColourType type;
  return type;
}
const FieldType& type_of(Tag<Entity>) {
  static const EntityType type;
  return type;
}
const FieldType& type_of(Tag<Random>) {
  static const RandomType type;
  return type;
}
const FieldType& type_of(Tag<TomlValue>) {
  static const NodeType type;
  return type;
}

}  // namespace vole::detail
