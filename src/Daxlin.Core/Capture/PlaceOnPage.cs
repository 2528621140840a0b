using Daxlin.Core.Pages;

namespace Daxlin.Core.Capture;

/// <summary>A box on a page of the document.</summary>
/// <param name="Page">From 1.</param>
public readonly record struct PlaceOnPage(int Page, Box Box);
