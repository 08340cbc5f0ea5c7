// A set of cells with the words of std::set, in the order of their numbers.
#pragma once

#include <bitset>
#include <compare>
#include <cstddef>
#include <initializer_list>
#include <iterator>
#include <utility>

#include "ninepegs/board/geometry.hpp"

namespace ninepegs::judge {

class Cells {
 public:
  class iterator {
   public:
    using iterator_category = std::forward_iterator_tag;
    using value_type = Cell;
    using difference_type = std::ptrdiff_t;
    using pointer = const Cell*;
    using reference = Cell;
    iterator(const CellSet& in, std::size_t at) : in_(&in), at_(at) {}
    Cell operator*() const { return static_cast<Cell>(at_); }
    iterator& operator++() {
      at_ = in_->_Find_next(at_);
      return *this;
    }
    bool operator!=(const iterator& other) const { return at_ != other.at_; }
    bool operator==(const iterator& other) const { return at_ == other.at_; }

   private:
    const CellSet* in_;
    std::size_t at_;
  };

  Cells() = default;
  Cells(std::initializer_list<Cell> cells) {
    for (Cell cell : cells) insert(cell);
  }
  template <class List>
  explicit Cells(const List& cells) {
    for (Cell cell : cells) insert(cell);
  }
  iterator begin() const { return {bits_, bits_._Find_first()}; }
  iterator end() const { return {bits_, bits_.size()}; }
  bool insert(Cell cell) {  // was it not there?
    bool fresh = !bits_[static_cast<std::size_t>(cell)];
    bits_.set(static_cast<std::size_t>(cell));
    return fresh;
  }
  void erase(Cell cell) { bits_.reset(static_cast<std::size_t>(cell)); }
  void add(const Cells& other) { bits_ |= other.bits_; }
  std::size_t count(Cell cell) const { return bits_[static_cast<std::size_t>(cell)] ? 1 : 0; }
  std::size_t size() const { return bits_.count(); }
  bool empty() const { return bits_.none(); }
  Cell first() const { return *begin(); }
  Cell last() const {
    Cell out = -1;
    for (Cell cell : *this) out = cell;
    return out;
  }
  friend bool operator==(const Cells&, const Cells&) = default;
  friend bool operator<(const Cells& a, const Cells& b) {
    CellSet differ = a.bits_ ^ b.bits_;
    return differ.any() && b.bits_[differ._Find_first()];
  }

 private:
  CellSet bits_;
};

}  // namespace ninepegs::judge
