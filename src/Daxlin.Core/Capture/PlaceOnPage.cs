using Daxlin.Core.Pages;

namespace Daxlin.Core.Capture;

/// <summary>A box on a page of the document.</summary>
/// <param name="Page">From 1.</param>
public sealed record PlaceOnPage(int Page, Box Box);
