namespace Daxlin.Core.Drafting;

/// <summary>One of several ways in which a part of a template can be; it puts that part into a plan.</summary>
/// <remarks>What does not apply to a plan gives it back as it was.</remarks>
internal delegate DraftPlan DraftWay(DraftPlan plan);
