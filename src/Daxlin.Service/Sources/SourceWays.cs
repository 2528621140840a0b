using Daxlin.Core.Sources;
using Daxlin.Service.Sources.Folders;
using Daxlin.Service.Sources.Mailboxes;

namespace Daxlin.Service.Sources;

/// <summary>Looks at a source in the way that its document says.</summary>
internal sealed class SourceWays(FolderLook folders, MailboxLook mailboxes)
{
    public Task<LookedAt> Look(Source source, CancellationToken cancel) => source.Way switch
    {
        FolderSource folder => folders.Look(source, folder, cancel),
        MailboxSource mailbox => mailboxes.Look(source, mailbox, cancel),
        _ => throw new SourceTroubleException($"This release knows no way to look at {source.Way.Place}."),
    };
}
