using System.Text.Json.Nodes;

namespace Daxlin.Core.Drafting;

/// <summary>One column in the making.</summary>
/// <param name="Rule">Its rule but for its fold.</param>
/// <param name="Folds">Says that its text can wrap.</param>
internal sealed record ColumnPlan(string Name, JsonObject Rule, bool Folds);
