using Daxlin.Core.Checks;

namespace Daxlin.Core.Corrections;

/// <summary>A finding that the invoice's own figures do not show: what other invoices, or its vendor's record, say against it.</summary>
public sealed record OutsideFinding(Finding Finding, Passing Passing);
