import { useEffect } from 'react'
import { useRouteError } from 'react-router'
import { Button } from '../ui/Button'
import { Problems } from '../ui/Problems'
import { Screen } from '../ui/Screen'

/**
 * In the place of a screen that could not be shown: its code is gone, since Ironing was updated while the page was
 * open, or a fault of the page itself.
 */
export function Broken() {
  const error = useRouteError()
  const gone = error instanceof TypeError && /import|fetch/i.test(error.message)
  useEffect(() => {
    if (!gone) console.error(error)
  }, [error, gone])
  return (
    <Screen title="This screen cannot be shown">
      <div className="card flex flex-1 flex-col items-start gap-3 p-4">
        <Problems
          problems={[
            gone
              ? {
                  code: 'page-gone',
                  thing: 'The page',
                  reason: 'The server has not got this part of it: Ironing was updated, or does not run.',
                  remedy: 'See whether ./ironing still runs, then load the page again.',
                }
              : {
                  code: 'internal',
                  thing: 'The page',
                  reason: `Something went wrong in it: ${String(error)}`,
                  remedy: 'Nothing was changed by that. Load the page again, or go to another screen.',
                },
          ]}
        />
        <Button onClick={() => location.reload()}>Load the page again</Button>
      </div>
    </Screen>
  )
}
