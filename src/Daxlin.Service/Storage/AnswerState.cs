namespace Daxlin.Service.Storage;

/// <summary>How it stands with the answer to a message.</summary>
public enum AnswerState
{
    /// <summary>Nobody is answered, and <see cref="SourceItem.AnswerSays"/> says why if somebody could have been.</summary>
    None,

    /// <summary>It goes once all of the message is captured.</summary>
    Waiting,

    /// <summary>It is being handed over. What is found so after a death may have arrived, and is not sent again.</summary>
    Sending,
    Sent,

    /// <summary>A person has to look.</summary>
    GivenUp,
}
