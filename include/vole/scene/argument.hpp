// What one scene hands to the next: any described struct.
//
//   class Finish : public Scene {
//    public:
//     using Argument = Harvest;                                     // what it expects
//     void enter(Stage& stage) override { harvest_ = stage.argument<Harvest>(); }
//   };
//   stage.leave_for<Finish>(Harvest{12, 16});                       // another struct does not compile
#pragma once

#include <memory>

#include "vole/base/described_type.hpp"

namespace vole {

class SceneArgument {
 public:
  // None.
  SceneArgument() = default;
  template <Described T>
  explicit SceneArgument(T value)
      : type_(&described_type<T>()), value_(std::make_shared<T>(std::move(value))) {}
  // A fresh one of this type, to be read into.
  explicit SceneArgument(const DescribedType& type) : type_(&type), value_(type.make()) {}

  // nullptr for none.
  const DescribedType* type() const { return type_; }
  void* data() const { return value_.get(); }
  // nullptr when it is none or of another type.
  template <class T>
  const T* as() const {
    return type_ == &described_type<T>() ? static_cast<const T*>(value_.get()) : nullptr;
  }

 private:
  const DescribedType* type_ = nullptr;
  std::shared_ptr<void> value_;
};

}  // namespace vole
