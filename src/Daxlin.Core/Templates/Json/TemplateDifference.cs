namespace Daxlin.Core.Templates.Json;

/// <summary>What two template documents say otherwise at one place.</summary>
/// <param name="Place">The key's path: <c>fields.total.where.beside</c>, <c>blocks.goods.columns.amount</c>.</param>
/// <param name="Before">As JSON; empty if the key was not there.</param>
/// <param name="After">As JSON; empty if the key is there no more.</param>
public sealed record TemplateDifference(string Place, string Before, string After);
