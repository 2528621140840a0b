namespace Daxlin.Core.Capture;

/// <summary>What a tidy step made of a text.</summary>
/// <param name="Step">The step's name: <c>take</c>.</param>
/// <param name="Text">The text after it.</param>
public sealed record TidiedText(string Step, string Text);
