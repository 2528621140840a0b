namespace Daxlin.Core.Drift;

/// <summary>A sign that a vendor's layout has changed under its template.</summary>
/// <param name="About">The field or column: <c>dueDate</c>, <c>lines[].unit</c>; empty for the invoice as a whole.</param>
/// <param name="Says">What used to be and what is now, with how many of each.</param>
/// <param name="Since">The place in the sequence of the first invoice that shows it.</param>
public sealed record DriftNotice(string About, string Says, int Since);
