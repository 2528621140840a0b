using Daxlin.Core.Posting.Layouts;

namespace Daxlin.Service.Posting.Layouts;

/// <summary>A saved layout, read.</summary>
internal sealed record StoredLayout(PostingLayout Layout, int Version);
