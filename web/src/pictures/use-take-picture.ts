import { problemOf, useAddPhotoMutation } from '../app/api.ts';
import { useDesk } from '../job/job-context.ts';
import { typing } from '../offline/typing.ts';
import { NoPicture } from './open-picture.ts';
import { scaledPicture } from './scaled-picture.ts';

/** What became of a picture: whether it is kept, here or on the server, and what is to be said of it. */
export interface TakenPicture {
  readonly kept: boolean;
  readonly told: string | null;
}

/** The recorded cable or the other lead that a picture shows; nothing for all of the machine. */
export interface ShownLead {
  readonly cableId?: string;
  readonly leadId?: string;
}

export interface PictureTaking {
  readonly take: (file: File, caption: string, shows?: ShownLead) => Promise<TakenPicture>;
  readonly busy: boolean;
}

/** Keeps pictures with the job, scaled down here, also while the server is away. */
export function useTakePicture(): PictureTaking {
  const { code, technician } = useDesk();
  const [add, adding] = useAddPhotoMutation();

  async function take(file: File, caption: string, shows: ShownLead = {}): Promise<TakenPicture> {
    if (technician === null) return { kept: false, told: null };
    const work = crypto.randomUUID();
    typing.begin(work);
    try {
      const picture = await scaledPicture(file);
      const answer = await add({
        code,
        id: crypto.randomUUID(),
        by: technician,
        caption: caption.trim(),
        ...shows,
        picture,
      });
      if (answer.error !== undefined)
        return { kept: false, told: `${problemOf(answer.error).title}. The picture is not kept; take it again later.` };
      return {
        kept: true,
        told: answer.data === null ? 'The server is away: the picture is kept here, and sent when it is back.' : null,
      };
    } catch (error) {
      if (!(error instanceof NoPicture)) throw error;
      return { kept: false, told: error.message };
    } finally {
      typing.end(work);
    }
  }
  return { take, busy: adding.isLoading };
}
