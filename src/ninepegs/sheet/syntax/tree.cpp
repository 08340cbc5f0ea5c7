// What the compiler makes of trees, once.
#include "ninepegs/sheet/syntax/tree.hpp"

namespace ninepegs::sheet {

Expr::Expr() = default;
Expr::Expr(const Expr&) = default;
Expr::Expr(Expr&&) noexcept = default;
Expr& Expr::operator=(const Expr&) = default;
Expr& Expr::operator=(Expr&&) noexcept = default;
Expr::~Expr() = default;

Statement::Statement() = default;
Statement::Statement(const Statement&) = default;
Statement::Statement(Statement&&) noexcept = default;
Statement& Statement::operator=(const Statement&) = default;
Statement& Statement::operator=(Statement&&) noexcept = default;
Statement::~Statement() = default;

Tree::Tree() = default;
Tree::Tree(const Tree&) = default;
Tree::Tree(Tree&&) noexcept = default;
Tree& Tree::operator=(const Tree&) = default;
Tree& Tree::operator=(Tree&&) noexcept = default;
Tree::~Tree() = default;

}  // namespace ninepegs::sheet
