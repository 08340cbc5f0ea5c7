// A function that is handed down: what is called with it need not be a template.
#pragma once

#include <memory>
#include <type_traits>
#include <utility>

namespace ninepegs {

template <class Signature>
class FunctionRef;

// Refers to anything that can be called so; owns nothing. What it refers to has to outlive it, so
// it is for parameters only.
template <class Result, class... Arguments>
class FunctionRef<Result(Arguments...)> {
 public:
  template <class F>
  requires(!std::is_same_v<std::remove_cvref_t<F>, FunctionRef> &&
           std::is_class_v<std::remove_cvref_t<F>>) FunctionRef(F&& function)
      : object_(const_cast<void*>(static_cast<const void*>(std::addressof(function)))),
        call_([](void* object, Arguments... arguments) -> Result {
          return (*static_cast<std::remove_reference_t<F>*>(object))(
              std::forward<Arguments>(arguments)...);
        }) {}
  Result operator()(Arguments... arguments) const {
    return call_(object_, std::forward<Arguments>(arguments)...);
  }

 private:
  void* object_;
  Result (*call_)(void*, Arguments...);
};

}  // namespace ninepegs
