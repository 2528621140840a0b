using Daxlin.Core.Pages;

namespace Daxlin.Core.Drafting;

/// <summary>One printed heading of a table.</summary>
/// <param name="Text">As printed, over several lines if it is set so.</param>
internal sealed record Heading(string Text, Meanings Meanings, Box Box);
