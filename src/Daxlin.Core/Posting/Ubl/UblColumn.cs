using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Posting.Layouts;

namespace Daxlin.Core.Posting.Ubl;

/// <summary>A column that a UBL layout may have, or must.</summary>
/// <param name="Proves">The control total that it must be held against, so that no amount is lost or doubled.</param>
public sealed record UblColumn(string Heading, ExpressionType Type, bool IsNeeded = false, Proved Proves = Proved.Nothing);
